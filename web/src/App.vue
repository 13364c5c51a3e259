<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { defineAsyncComponent, onMounted, ref, watch } from 'vue'
import { type Face, loadFaces } from './pane/faces'
import { api } from './ui/api'
import AskDialog from './ui/AskDialog.vue'
import ChecksShelf from './ui/ChecksShelf.vue'
import Invitation from './Account/Invitation.vue'
import InForceLine from './Overlay/InForceLine.vue'
import KeyList from './ui/KeyList.vue'
import NotThere from './ui/NotThere.vue'
import Passage from './ui/Passage.vue'
import SignIn from './ui/SignIn.vue'
import { useSession } from './ui/session'

const session = useSession()
const away = ref(false)
const finding = ref(false)
const Finder = defineAsyncComponent(() => import('./ui/Finder.vue'))
useEventListener('keydown', (e: KeyboardEvent) => {
  if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'k') return
  e.preventDefault()
  finding.value = !finding.value
})

async function begin() {
  try {
    await session.load()
    away.value = false
  } catch {
    away.value = true
    setTimeout(() => void begin(), 3000)
  }
}
onMounted(begin)

// Every picture of a layout is drawn in the faces of the house.
watch(
  () => session.account?.login,
  (login) =>
    login &&
    api
      .get<{ faces: Face[] }>('faces')
      .then(({ faces }) => loadFaces(faces))
      .catch(() => undefined),
)
</script>

<template>
  <BApp>
    <div v-if="session.account" class="shell">
      <div>
        <Passage @find="finding = true" />
        <InForceLine />
      </div>
      <!-- Another layout, playlist or display is another view: nothing of the one before is left. -->
      <RouterView v-if="!$route.meta.needs || $may($route.meta.needs)" :key="$route.path" />
      <NotThere v-else />
      <ChecksShelf />
      <KeyList />
      <AskDialog />
      <Finder v-if="finding" @close="finding = false" />
    </div>
    <Invitation v-else-if="session.known && typeof $route.params.token === 'string'" :token="$route.params.token" />
    <SignIn v-else-if="session.known" />
    <p v-else class="empty">
      {{ away ? 'The server does not answer. This page tries again every three seconds.' : 'Opening Upper Pane.' }}
    </p>
    <SignIn v-if="session.isLost" again />
  </BApp>
</template>
