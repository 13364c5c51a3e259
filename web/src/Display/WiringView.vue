<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useEstate } from '../Estate/estate'
import { api } from '../ui/api'

/** The wiring sheet, to look at and to print: only its pages are printed. */
const props = defineProps<{ id: string }>()
const { displays } = useEstate(false)
const sheet = useQuery({ queryKey: ['wiring', props.id], staleTime: 0, queryFn: () => api.get<{ pages: string[] }>(`displays/${props.id}/wiring`) })
const print = () => window.print()
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Wiring sheet</h1>
        <p class="facts m-0">
          <RouterLink :to="`/displays/${id}`">{{ displays.find((d) => d.id === id)?.name ?? id }}</RouterLink> · for whoever hangs the panels and
          plugs in the cables
        </p>
      </div>
      <div class="actions">
        <a
          v-for="(_, i) in sheet.data.value?.pages ?? []"
          :key="i"
          class="btn btn-outline-dark"
          :href="`/api/displays/${id}/wiring-${i + 1}.svg`"
          download
        >
          SVG, page {{ i + 1 }}
        </a>
        <a class="btn btn-outline-dark" :href="`/api/displays/${id}/wiring.pdf`" download>PDF</a>
        <BButton variant="primary" :disabled="!sheet.data.value" @click="print">Print</BButton>
      </div>
    </div>
    <div class="body pages" tabindex="0" role="region" aria-label="Pages of the sheet">
      <p v-if="sheet.error.value" class="empty said-error">{{ sheet.error.value.message }}</p>
      <p v-else-if="sheet.isPending.value" class="empty">Drawing the sheet.</p>
      <!-- Drawn by the server, where every name in it is escaped. -->
      <!-- eslint-disable-next-line vue/no-v-html -->
      <div v-for="(page, i) in sheet.data.value?.pages ?? []" :key="i" class="page" v-html="page"></div>
    </div>
  </main>
</template>

<style scoped>
.pages {
  background: var(--ground);
  padding: 20px;
}
.page {
  max-width: 1120px;
  margin: 0 auto 20px;
}
.page :deep(svg) {
  display: block;
  width: 100%;
  height: auto;
}
</style>

<style>
@media print {
  @page {
    size: A4 landscape;
    margin: 0;
  }
  html,
  body,
  #app,
  .shell,
  .station,
  .pages {
    display: block !important;
    height: auto !important;
    overflow: visible !important;
    padding: 0 !important;
    background: #fff !important;
  }
  .shell > :not(main),
  .station > .head {
    display: none !important;
  }
  .page {
    max-width: none !important;
    margin: 0 !important;
    break-after: page;
  }
}
</style>
