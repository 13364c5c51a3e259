<script setup lang="ts">
import { ref } from 'vue'
import { signIn } from './server'

/** Signing in on a telephone. */
const emit = defineEmits<{ entered: [name: string | null] }>()
const login = ref('')
const password = ref('')
const trouble = ref('')
async function enter() {
  trouble.value = ''
  try {
    emit('entered', await signIn(login.value, password.value))
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : 'Signing in failed.'
  }
}
</script>

<template>
  <form class="in" @submit.prevent="enter">
    <label>Name<input v-model="login" autocomplete="username" autocapitalize="none" required /></label>
    <label>Password<input v-model="password" type="password" autocomplete="current-password" required /></label>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <button type="submit" class="go">Sign in</button>
  </form>
</template>
