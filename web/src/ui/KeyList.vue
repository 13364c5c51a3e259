<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ref } from 'vue'
import { offerActions } from './actions'
import { mayAct, singleKeys } from './keys'

const open = ref(false)
const keys: [string, string][] = [
  ['Z, T, S, P', 'draw a zone, text, shape, or place a picture'],
  ['K, Q, R', 'draw a clock, a code, running text'],
  ['Enter or F2 on a text', 'type over it; Escape or Ctrl + Enter ends that'],
  ['Enter with a tool', 'put it into the middle of the canvas'],
  ['V or Escape', 'back to choosing'],
  ['Arrows, Shift + arrows', 'move what is chosen by 1 px, by 10 px; panels that hang freely by 1 mm, by 10 mm'],
  ['Alt while dragging', 'without snapping'],
  ['Shift while sizing', 'keep the aspect'],
  ['Ctrl + Z, Ctrl + Shift + Z', 'undo, redo'],
  ['Ctrl + C, Ctrl + V, Ctrl + D', 'copy, paste, duplicate'],
  ['Ctrl + A, Delete', 'choose all, delete'],
  ['Ctrl + G, Ctrl + Shift + G', 'group, ungroup; a double press chooses one of a group'],
  ['H, L', 'hide what is chosen, lock it; again to show or unlock'],
  ['] and [, with Shift', 'raise, lower; to the top, to the bottom'],
  ['+ and −, 0, 1', 'larger, smaller, fit into the pane, pixel for pixel'],
  ['Ctrl + wheel, middle button', 'zoom at the pointer, move what is shown'],
  ['Space', 'run the clock of the tide table or of a rehearsal, or stop it'],
  ['Ctrl + wheel on the tide table', 'a shorter span, a longer one; + and − on its hand'],
  [
    'Arrows on a booking',
    'to the next one, Home and End to the first and last; Ctrl + arrows move it by 5 min or a day, Shift by an hour, Alt its end; Page up, down: other days',
  ],
  [
    'Arrows on what plays',
    'to the next item or zone, Page up, down: earlier, later; Enter takes it, Shift + Enter puts the hand there as well, Alt + arrows change the order',
  ],
  [', and .', 'one second back, one second on'],
  ['< and >', 'previous change, next change'],
  ['Ctrl + S', 'save now'],
  ['Ctrl + K', 'find any object or action'],
  ['?', 'this list'],
]

useEventListener('keydown', (e: KeyboardEvent) => {
  if (e.key === '?' && mayAct(e)) open.value = true
})
// Also where keys of one sign are turned off.
offerActions(() => [{ kind: 'action', name: 'Keys', more: 'the list, and turning keys of one letter off', act: () => (open.value = true) }])
</script>

<template>
  <BModal v-model="open" lazy title="Keys" no-footer>
    <label class="single">
      <input v-model="singleKeys" type="checkbox" class="form-check-input" />
      Keys of one letter or sign act, on the pane and where nothing has the focus
    </label>
    <table class="table table-sm m-0">
      <tbody>
        <tr v-for="[key, does] in keys" :key="key">
          <th scope="row" class="figures">{{ key }}</th>
          <td>{{ does }}</td>
        </tr>
      </tbody>
    </table>
  </BModal>
</template>

<style scoped>
.single {
  display: flex;
  gap: 8px;
  margin-bottom: 10px;
}
</style>
