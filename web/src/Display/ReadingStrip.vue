<script setup lang="ts">
import { computed } from 'vue'
import MeasureField from '../ui/MeasureField.vue'
import { type Reading, metres } from './survey'

/** Where a text can be read: the distances along one line, and the other way round, the smallest capital for the farthest viewer. */
const props = defineProps<{ reading: Reading; what: string; layouts: { id: string; name: string }[] }>()
const layout = defineModel<string>('layout', { required: true })
const cap = defineModel<number | null>('cap', { required: true })

const text = computed(() => props.reading.text)
const far = computed(() => Math.max(props.reading.viewing.farthest_mm, text.value?.limit_to_mm ?? 0) * 1.06)
const at = (mm: number) => `${Math.min(100, (mm / far.value) * 100)}%`
const VERDICTS = { comfortable: 'reads comfortably', limit: 'is at the limit', unreadable: 'cannot be read' }
</script>

<template>
  <section class="strip" aria-label="Where it can be read">
    <header>
      <h2>Where can it be read?</h2>
      <label
        >smallest text of
        <select v-model="layout" class="form-select form-select-sm" @change="cap = null">
          <option value="">no layout</option>
          <option v-for="l in layouts" :key="l.id" :value="l.id">{{ l.name }}</option>
        </select></label
      >
      <label
        >or capitals of <MeasureField label="Height of a capital" unit="px" :value="cap ?? text?.cap_px ?? null" :least="0.1" @change="cap = $event"
      /></label>
    </header>
    <div class="line figures" aria-hidden="true">
      <div class="room"></div>
      <template v-if="text">
        <div class="far-limit" :style="{ width: at(text.limit_to_mm) }"></div>
        <div class="far-good" :style="{ width: at(text.comfortable_to_mm) }"></div>
      </template>
      <div class="range" :style="{ left: at(reading.viewing.nearest_mm), right: `calc(100% - ${at(reading.viewing.farthest_mm)})` }"></div>
      <span class="post" :style="{ left: at(reading.viewing.nearest_mm) }">{{ metres(reading.viewing.nearest_mm) }} nearest</span>
      <span class="post end" :style="{ left: at(reading.viewing.farthest_mm) }">{{ metres(reading.viewing.farthest_mm) }} farthest</span>
    </div>
    <p v-if="text" class="figures says" :class="text.verdict">
      {{ what }} {{ VERDICTS[text.verdict] }} from the farthest: {{ text.arcmin_at_farthest.toFixed(1) }}′, {{ text.cap_mm.toFixed(0) }} mm ·
      comfortable to {{ metres(text.comfortable_to_mm) }}, limit {{ metres(text.limit_to_mm)
      }}<template v-if="text.too_few_px"> · under 7 px no capital can be drawn</template>
    </p>
    <p class="figures says">
      smallest capital for {{ metres(reading.viewing.farthest_mm) }}: {{ reading.comfortable.cap_px }} px =
      {{ reading.comfortable.cap_mm.toFixed(0) }} mm, type of about {{ reading.comfortable.type_px }} px · limit {{ reading.limit.cap_px }} px
    </p>
  </section>
</template>

<style scoped>
.strip {
  background: var(--sheet);
  padding: 8px 14px 8px;
}
header {
  display: flex;
  gap: 14px;
  align-items: baseline;
}
h2 {
  font-size: 0.9375rem;
  margin-right: auto;
}
label {
  font-size: 0.8125rem;
  color: var(--soft);
  display: inline-flex;
  gap: 6px;
  align-items: baseline;
}
select {
  width: 190px;
}
.line {
  position: relative;
  height: 42px;
  margin: 2px 0 4px;
}
.room,
.far-limit,
.far-good {
  position: absolute;
  left: 0;
  bottom: 0;
  height: 18px;
}
.room {
  right: 0;
  background: #f0d9d6;
}
.far-limit {
  background: #f3e3c3;
}
.far-good {
  background: #cfe3da;
}
.range {
  position: absolute;
  bottom: 7px;
  height: 4px;
  background: var(--kelp);
}
.post {
  position: absolute;
  top: 0;
  border-left: 1px solid var(--soft);
  height: 42px;
  padding-left: 4px;
  white-space: nowrap;
}
.post.end {
  transform: translateX(-100%);
  border-left: 0;
  border-right: 1px solid var(--soft);
  padding: 0 4px 0 0;
}
.says {
  margin: 0;
  color: var(--soft);
}
.says.comfortable {
  color: var(--kelp);
}
.says.limit {
  color: var(--warning);
}
.says.unreadable {
  color: var(--stop);
}
</style>
