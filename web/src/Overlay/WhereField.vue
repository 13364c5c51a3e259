<script setup lang="ts">
/** Where something lies on the screen: pressed on a small screen of its places; arrows go from one to the next. */
const props = defineProps<{ places: readonly (readonly string[])[]; value: string; label: string }>()
const emit = defineEmits<{ change: [place: string] }>()

function step(event: KeyboardEvent, row: number, column: number) {
  const [down, right] = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key] ?? [0, 0]
  const next = props.places[row + down!]?.[column + right!]
  if (!next || (!down && !right)) return
  event.preventDefault()
  emit('change', next)
  const own = (event.currentTarget as HTMLElement).closest('.screen')!
  requestAnimationFrame(() => own.querySelector<HTMLElement>('[aria-checked="true"]')?.focus())
}
</script>

<template>
  <div class="where">
    <span :id="`where-${label}`">{{ label }}</span>
    <div class="screen" role="radiogroup" :aria-labelledby="`where-${label}`" :style="{ gridTemplateColumns: `repeat(${places[0]!.length}, 1fr)` }">
      <template v-for="(row, y) in places" :key="y">
        <button
          v-for="(place, x) in row"
          :key="place"
          type="button"
          role="radio"
          :aria-checked="place === value"
          :aria-label="place.replace('-', ' ')"
          :title="place.replace('-', ' ')"
          :tabindex="place === value ? 0 : -1"
          @click="emit('change', place)"
          @keydown="step($event, y, x)"
        ></button>
      </template>
    </div>
    <span class="small soft">{{ value.replace('-', ' ') }}</span>
  </div>
</template>

<style scoped>
.where {
  display: grid;
  grid-template-columns: auto 120px 1fr;
  gap: 10px;
  align-items: center;
}
.screen {
  display: grid;
  gap: 3px;
  padding: 4px;
  height: 68px;
  background: var(--ink);
  border-radius: 2px;
}
.screen button {
  border: 1px solid #66757c;
  background: none;
  border-radius: 1px;
}
.screen button:hover {
  border-color: #fff;
}
.screen button[aria-checked='true'] {
  background: #fff;
  border-color: #fff;
}
</style>
