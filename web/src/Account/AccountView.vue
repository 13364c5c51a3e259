<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, sentence } from '../ui/api'
import { count, moment } from '../ui/format'
import { useSession } from '../ui/session'
import { useRemark } from '../ui/shelf'
import { type AccountState, ROLES, browser, inWords } from './account'

/** One's own account: what one may do, the password, and where one is signed in. */
interface Mine extends AccountState {
  sessions: { id: string; agent: string; began_at: string; seen_at: string; here: boolean }[]
}
const session = useSession()
const queries = useQueryClient()
const { data: mine, error } = useQuery({ queryKey: ['account'], queryFn: () => api.get<Mine>('account'), staleTime: 0 })
const old = ref('')
const fresh = ref('')
const said = ref('')
const trouble = ref('')
async function change() {
  ;[said.value, trouble.value] = ['', '']
  try {
    await api.put('account/password', { old: old.value, new: fresh.value })
    said.value = 'Your password is another one. Wherever else you were signed in, you are not any more.'
    ;[old.value, fresh.value] = ['', '']
    await queries.invalidateQueries({ queryKey: ['account'] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}
async function end(id: string | null) {
  trouble.value = ''
  try {
    await api.delete(`account/sessions${id ? `/${id}` : ''}`)
    await queries.invalidateQueries({ queryKey: ['account'] })
  } catch (e) {
    trouble.value = sentence(e)
  }
}
useRemark(() => (mine.value ? `Signed in in ${count(mine.value.sessions.length, 'browser')}` : ''))
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>{{ mine?.name ?? session.account?.name }}</h1>
        <p class="facts m-0">
          signs in as {{ mine?.login }}<template v-if="mine?.ends_at"> · until {{ moment(mine.ends_at) }}</template>
        </p>
      </div>
    </div>
    <section class="body p-3 account">
      <p v-if="error" class="said-error">{{ error.message }}</p>
      <template v-if="mine">
        <h2>What you may do</h2>
        <ul>
          <li v-for="(one, n) in mine.roles" :key="n">
            <b>{{ inWords(one) }}</b> <span class="soft">{{ ROLES[one.role] }}</span>
          </li>
        </ul>
        <template v-if="!mine.ends_at">
          <h2>Password</h2>
          <form class="password" @submit.prevent="change">
            <label>The old one<BFormInput v-model="old" type="password" autocomplete="current-password" required /></label>
            <label
              >The new one, 8 letters or more<BFormInput v-model="fresh" type="password" autocomplete="new-password" minlength="8" required
            /></label>
            <BButton type="submit" variant="primary">Change it</BButton>
          </form>
        </template>
        <p v-if="said" role="status">{{ said }}</p>
        <p v-if="trouble" class="said-error" role="alert">{{ trouble }}</p>
        <h2>Where you are signed in</h2>
        <ul class="sessions">
          <li v-for="one in mine.sessions" :key="one.id">
            <span
              ><b>{{ browser(one.agent) }}</b> <span v-if="one.here">, here</span></span
            >
            <span class="figures soft">since {{ moment(one.began_at) }}, seen {{ moment(one.seen_at) }}</span>
            <button v-if="!one.here" type="button" class="btn btn-link btn-sm p-0" @click="end(one.id)">sign out there</button>
          </li>
        </ul>
        <BButton v-if="mine.sessions.length > 2" variant="outline-dark" size="sm" @click="end(null)">Sign out everywhere else</BButton>
      </template>
    </section>
  </main>
</template>

<style scoped>
.account {
  max-width: 760px;
}
h2 {
  margin: 18px 0 6px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.password {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
}
.password label {
  font-size: 0.8125rem;
  color: var(--soft);
}
.sessions li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  border-top: 1px solid var(--rule);
  padding: 5px 0;
}
</style>
