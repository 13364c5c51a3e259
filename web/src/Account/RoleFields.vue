<script setup lang="ts">
import { useEstate } from '../Estate/estate'
import { type AccountState, ROLES, type Role } from './account'

/** What somebody is, and where: one line for each role. */
type Granted = Pick<AccountState['roles'][number], 'role' | 'place'>
const roles = defineModel<Granted[]>({ required: true })
const { places } = useEstate(false)
const put = (n: number, part: Partial<Granted>) => (roles.value = roles.value.map((one, i) => (i === n ? { ...one, ...part } : one)))
</script>

<template>
  <fieldset class="roles">
    <legend>Roles</legend>
    <div v-for="(one, n) in roles" :key="n" class="one">
      <select
        class="form-select form-select-sm"
        :value="one.role"
        :aria-label="`Role ${n + 1}`"
        @change="put(n, { role: ($event.target as HTMLSelectElement).value as Role })"
      >
        <option v-for="(_, role) in ROLES" :key="role" :value="role">{{ role }}</option>
      </select>
      <select
        class="form-select form-select-sm"
        :value="one.place ?? ''"
        :aria-label="`Place of role ${n + 1}`"
        @change="put(n, { place: ($event.target as HTMLSelectElement).value || null })"
      >
        <option value="">everywhere</option>
        <option v-for="p in places" :key="p.id" :value="p.id">{{ p.name }}</option>
      </select>
      <button
        v-if="roles.length > 1"
        type="button"
        class="btn btn-link btn-sm p-0"
        :aria-label="`Take role ${n + 1} away`"
        @click="roles = roles.filter((_, i) => i !== n)"
      >
        take away
      </button>
      <span class="soft small says">{{ ROLES[one.role] }}</span>
    </div>
    <button type="button" class="btn btn-link btn-sm p-0" @click="roles = [...roles, { role: 'reader', place: null }]">one more role</button>
  </fieldset>
</template>

<style scoped>
.roles {
  border: 0;
  margin: 0;
  padding: 0;
}
legend {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 0;
}
.one {
  display: grid;
  grid-template-columns: 150px 1fr auto;
  gap: 2px 8px;
  align-items: center;
  margin-bottom: 6px;
}
.says {
  grid-column: 1 / 4;
}
</style>
