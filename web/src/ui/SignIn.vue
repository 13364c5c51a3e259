<script setup lang="ts">
import { ref } from 'vue'
import { sentence } from './api'
import { useSession } from './session'

const props = defineProps<{ again?: boolean }>()
const session = useSession()
const login = ref(props.again ? (session.account?.login ?? '') : '')
const password = ref('')
const trouble = ref('')
const busy = ref(false)

async function signIn() {
  busy.value = true
  trouble.value = ''
  try {
    await session.signIn(login.value.trim(), password.value)
  } catch (e) {
    trouble.value = sentence(e)
  } finally {
    busy.value = false
    password.value = ''
  }
}
</script>

<template>
  <div class="gate" :class="{ above: again }">
    <form class="card-paper" aria-labelledby="sign-in-title" @submit.prevent="signIn">
      <img src="/mark.svg" alt="" width="30" height="36" />
      <h1 id="sign-in-title">{{ again ? 'Sign in again' : 'Upper Pane' }}</h1>
      <p class="soft small">
        {{ again ? 'Your session has ended. What you typed is kept behind this note.' : 'Compose what a screen will show, and prove it right.' }}
      </p>
      <label for="login">Name</label>
      <BFormInput id="login" v-model="login" autocomplete="username" autofocus required />
      <label for="password">Password</label>
      <BFormInput id="password" v-model="password" type="password" autocomplete="current-password" required />
      <p v-if="trouble" class="said-error small" role="alert">{{ trouble }}</p>
      <BButton type="submit" variant="primary" :disabled="busy">{{ busy ? 'Signing in' : 'Sign in' }}</BButton>
    </form>
  </div>
</template>

<style scoped>
.gate {
  height: 100%;
  display: grid;
  place-items: center;
  background:
    repeating-linear-gradient(0deg, transparent 0 39px, var(--rule) 39px 40px),
    repeating-linear-gradient(90deg, var(--paper) 0 39px, var(--rule) 39px 40px);
}
.gate.above {
  position: fixed;
  inset: 0;
  z-index: 2000;
  background: rgb(23 39 46 / 0.4);
}
.card-paper {
  width: 340px;
  background: var(--sheet);
  border: 1px solid var(--ink);
  padding: 26px 28px 28px;
  display: flex;
  flex-direction: column;
}
h1 {
  font-size: 1.5rem;
  margin: 10px 0 2px;
}
label {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 8px 0 2px;
}
.btn {
  margin-top: 16px;
}
.said-error {
  margin: 10px 0 0;
}
img {
  align-self: flex-start;
}
</style>
