<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, sentence } from '../ui/api'
import { moment } from '../ui/format'
import { useSession } from '../ui/session'
import { type AccountState, inWords } from './account'

/** Whoever comes by a link: what it is for, and in. */
const props = defineProps<{ token: string }>()
const session = useSession()
const router = useRouter()
const invited = ref<Pick<AccountState, 'name' | 'roles' | 'ends_at'> | null>(null)
const trouble = ref('')
onMounted(async () => {
  try {
    invited.value = await api.get(`invitation/${props.token}`)
  } catch (e) {
    trouble.value = sentence(e)
  }
})
async function come() {
  try {
    await session.come(props.token)
    await router.replace('/')
  } catch (e) {
    trouble.value = sentence(e)
  }
}
</script>

<template>
  <main class="invitation">
    <div class="card-paper">
      <img src="/mark.svg" alt="" width="30" height="36" />
      <h1>Upper Pane</h1>
      <template v-if="invited">
        <p>
          You are invited as <b>{{ invited.name }}</b>: {{ invited.roles.map(inWords).join(', ') }}, until {{ moment(invited.ends_at) }}.
        </p>
        <BButton variant="primary" @click="come">Come in</BButton>
      </template>
      <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
    </div>
  </main>
</template>

<style scoped>
.invitation {
  height: 100%;
  display: grid;
  place-items: center;
  padding: 16px;
}
.card-paper {
  max-width: 380px;
  background: var(--sheet);
  border: 1px solid var(--ink);
  padding: 26px 28px 28px;
}
h1 {
  font-size: 1.5rem;
  margin: 10px 0;
}
</style>
