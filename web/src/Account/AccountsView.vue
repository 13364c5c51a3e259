<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useEstate } from '../Estate/estate'
import { api } from '../ui/api'
import { ask } from '../ui/ask'
import { useAsked } from '../ui/asked'
import { count, moment } from '../ui/format'
import { useGuarded } from '../ui/guarded'
import { useSession } from '../ui/session'
import { useRemark } from '../ui/shelf'
import { type AccountState, inWords } from './account'
import RoleFields from './RoleFields.vue'

/** All accounts: made, changed, taken away; and guests, who come by a link and go by themselves. */
const session = useSession()
const { places } = useEstate(false)
const query = useQuery({ queryKey: ['accounts'], queryFn: () => api.get<{ accounts: AccountState[] }>('accounts'), staleTime: 0 })
const all = computed(() => query.data.value?.accounts ?? [])
const search = useAsked('search')
const found = computed(() =>
  all.value.filter((one) => `${one.name} ${one.login} ${one.roles.map(inWords).join(' ')}`.toLowerCase().includes(search.value.trim().toLowerCase())),
)
const { trouble, guarded } = useGuarded('accounts')

type Granted = Pick<AccountState['roles'][number], 'role' | 'place'>
const editing = ref(false)
const edited = ref<string | null>(null)
const login = ref('')
const name = ref('')
const password = ref('')
const roles = ref<Granted[]>([])
function open(account: AccountState | null) {
  edited.value = account?.login ?? null
  login.value = account?.login ?? ''
  name.value = account?.name ?? ''
  password.value = ''
  roles.value = account?.roles.map(({ role, place }) => ({ role, place })) ?? [{ role: 'editor', place: places.value[0]?.id ?? null }]
  trouble.value = ''
  editing.value = true
}
const granted = () => roles.value.map(({ role, place }) => (place === null ? { role } : { role, place }))
const save = () =>
  guarded(async () => {
    const said = { name: name.value.trim(), roles: granted(), ...(password.value ? { password: password.value } : {}) }
    if (edited.value) await api.put(`accounts/${edited.value}`, said)
    else await api.post('accounts', { login: login.value.trim(), ...said })
    editing.value = false
  })
async function remove(account: AccountState) {
  if (await ask(`Take the account of “${account.name}” away?`, 'What was done with it stays written down. It cannot be put back.', 'Take it away'))
    await guarded(() => api.delete(`accounts/${account.login}`))
}

// --- guests ------------------------------------------------------------------------------

const inviting = ref(false)
const guest = ref({ name: '', role: 'editor', place: '', days: 7 })
const link = ref('')
const invite = () =>
  guarded(async () => {
    const { name: called, role, place, days } = guest.value
    const made = await api.post<{ link: string }>('accounts/guests', { name: called.trim(), role, place, days })
    link.value = `${location.origin}${made.link}`
  })
const copied = ref(false)
const copy = () => navigator.clipboard.writeText(link.value).then(() => (copied.value = true))
function openInvitation() {
  ;[link.value, copied.value, trouble.value] = ['', false, '']
  guest.value = { ...guest.value, name: '', place: guest.value.place || (places.value[0]?.id ?? '') }
  inviting.value = true
}
useRemark(() => `${count(all.value.length, 'account')}, ${all.value.filter((one) => one.ends_at).length} of guests`)
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Accounts</h1>
        <p class="facts m-0">Who may do what, and where; a role at a place holds in all that lies in it</p>
      </div>
      <div class="actions">
        <BFormInput v-model="search" type="search" placeholder="Search name, role, place" aria-label="Search accounts" />
        <BButton variant="outline-dark" @click="openInvitation">Invite a guest…</BButton>
        <BButton variant="primary" @click="open(null)">New account…</BButton>
      </div>
    </div>
    <section class="body p-3" aria-label="All accounts">
      <p v-if="trouble && !editing && !inviting" class="said-error" role="alert">{{ trouble }}</p>
      <p v-if="query.error.value" class="said-error">{{ query.error.value.message }}</p>
      <table v-else class="table">
        <thead>
          <tr>
            <th scope="col">Name</th>
            <th scope="col">Signs in as</th>
            <th scope="col">Roles</th>
            <th scope="col">Last seen</th>
            <th scope="col"><span class="visually-hidden">What can be done</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in found" :key="one.login">
            <th scope="row">{{ one.name }}</th>
            <td class="figures">{{ one.ends_at ? `guest until ${moment(one.ends_at)}` : one.login }}</td>
            <td>{{ one.roles.map(inWords).join('; ') || 'none' }}</td>
            <td class="figures">{{ moment(one.seen_at) }}</td>
            <td class="acts">
              <button type="button" class="btn btn-link btn-sm p-0" :aria-label="`Change ${one.name}`" @click="open(one)">change</button>
              <button
                v-if="one.login !== session.account?.login"
                type="button"
                class="btn btn-link btn-sm p-0"
                :aria-label="`Take ${one.name} away`"
                @click="remove(one)"
              >
                take away
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <BModal v-model="editing" no-close-on-backdrop lazy :title="edited ? `Change ${edited}` : 'New account'" no-footer>
      <form class="make" @submit.prevent="save">
        <label v-if="!edited"
          >Signs in as<BFormInput
            v-model="login"
            required
            maxlength="80"
            pattern="[a-z0-9][a-z0-9.\-]*"
            title="small letters, figures, dots and dashes"
        /></label>
        <label>Name<BFormInput v-model="name" required maxlength="120" /></label>
        <label
          >{{ edited ? 'A new password, unless it stays' : 'Password' }}, 8 letters or more
          <BFormInput v-model="password" type="password" autocomplete="new-password" minlength="8" :required="!edited"
        /></label>
        <RoleFields v-model="roles" />
        <p v-if="trouble" class="said-error small m-0" role="alert">{{ trouble }}</p>
        <BButton type="submit" variant="primary">{{ edited ? 'Save' : 'Make it' }}</BButton>
      </form>
    </BModal>
    <BModal v-model="inviting" no-close-on-backdrop lazy title="Invite a guest" no-footer>
      <div v-if="link" class="make">
        <p class="m-0">Whoever has this link comes in by it, until it ends. It is told only here.</p>
        <input class="form-control figures" readonly :value="link" aria-label="The link" @focus="($event.target as HTMLInputElement).select()" />
        <BButton variant="primary" @click="copy">{{ copied ? 'Copied' : 'Copy it' }}</BButton>
      </div>
      <form v-else class="make" @submit.prevent="invite">
        <label>Who it is for<BFormInput v-model="guest.name" required maxlength="120" /></label>
        <label
          >Role
          <select v-model="guest.role" class="form-select" aria-label="Role of the guest">
            <option value="editor">editor: fills in, and hands that over</option>
            <option value="reader">reader: looks</option>
          </select></label
        >
        <label
          >At
          <select v-model="guest.place" class="form-select" required aria-label="Place of the guest">
            <option v-for="p in places" :key="p.id" :value="p.id">{{ p.name }}</option>
          </select></label
        >
        <label>For so many days<BFormInput v-model.number="guest.days" type="number" min="1" max="365" required /></label>
        <p v-if="trouble" class="said-error small m-0" role="alert">{{ trouble }}</p>
        <BButton type="submit" variant="primary">Make the link</BButton>
      </form>
    </BModal>
  </main>
</template>

<style scoped>
.acts .btn + .btn {
  margin-left: 12px;
}
.make {
  display: grid;
  gap: 10px;
}
.make label {
  font-size: 0.8125rem;
  color: var(--soft);
}
</style>
