<script setup lang="ts">
import { computed, ref } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { useRouter } from 'vue-router'
import { useSettings } from '../Display/settings'
import { type DesignSummary, type Saved, useDesigns, usePlayedLayouts } from '../Layout/designs'
import { isReadyPicture, refOf, useMedia } from '../Media/media'
import { api } from '../ui/api'
import { ask } from '../ui/ask'
import { useAsked } from '../ui/asked'
import { count, moment } from '../ui/format'
import { useGuarded } from '../ui/guarded'
import { may } from '../ui/rights'
import { useRemark } from '../ui/shelf'
import { type Kind, KINDS, type Overlay, begun, liesAt, nameOfKind, saidOf, saidWhen, saying, useAbove } from './overlays'

/** All that lies above what plays: what, where, when, on how many displays now and next, until when; and what is prepared. */
const { query, all } = useDesigns('overlays')
const above = useAbove()
const { places, displays: stating } = useSettings()
const layouts = usePlayedLayouts()
const { all: media } = useMedia()
const router = useRouter()
const queries = useQueryClient()
const search = useAsked('search')
const { trouble: said, guarded } = useGuarded('overlays')
const { trouble, guarded: guardedMaking } = useGuarded('overlays')
const documentOf = (id: string) => above.value.get(id)?.says ?? null
const putAt = (id: string) => [...places.value, ...stating.value].filter((one) => saidOf(one.settings.overlays, id) === 'add').map((one) => one.name)
const shown = computed(() => all.value.filter((one) => one.name.toLowerCase().includes(search.value.trim().toLowerCase())))
/** In the order in which they lie over one another, those that are nowhere last. */
const lists = computed(() => {
  const stand = (one: DesignSummary) => (above.value.get(one.id)?.displays ?? 0) > 0
  return [
    { title: 'Above what plays', rows: shown.value.filter(stand) },
    { title: 'Prepared, and nowhere yet', rows: shown.value.filter((one) => !stand(one)) },
  ].filter(({ rows }) => rows.length)
})
function now(id: string): string {
  const one = above.value.get(id)
  if (!one || one.displays === 0) return ''
  if (one.trouble) return one.trouble
  if (one.now) return `on ${count(one.now, 'display')}${one.until ? `, until ${moment(one.until)}` : ''}`
  return one.next ? `next ${moment(one.next)}` : 'over'
}

// --- making one ----------------------------------------------------------------------------------

const making = ref(false)
const kind = ref<Kind>('notice')
const name = ref('')
const at = ref('')
const make = () =>
  guardedMaking(async () => {
    const picture = media.value.find(isReadyPicture)
    const plays = layouts.value[0]
    const document = begun(kind.value, picture ? refOf(picture) : null, plays ? { layout: plays.id } : null)
    const title = name.value.trim() || nameOfKind(kind.value)
    const made = await api.post<Saved<Overlay>>('overlays', { name: title, document })
    const place = places.value.find((one) => one.id === at.value)
    if (place) {
      await api.put(`places/${place.id}/settings`, { setting: 'overlays', value: saying(place.settings.overlays, made.id, 'add') })
    }
    for (const key of ['settings', 'above', 'overlays', 'estate']) await queries.invalidateQueries({ queryKey: [key] })
    await router.push(`/overlays/${made.id}`)
  })
async function remove(one: DesignSummary) {
  if (await ask(`Delete “${one.name}”?`, 'It will lie in the bin for 30 days, and can be put back from there.', 'Delete it'))
    await guarded(() => api.delete(`overlays/${one.id}`))
}
useRemark(() => count(all.value.length, 'overlay'))
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Overlays</h1>
        <p class="facts m-0">What lies above whatever plays, for a display or a whole branch of the estate; no layout is opened for it</p>
      </div>
      <div class="actions">
        <input v-model="search" type="search" class="form-control" placeholder="Search" aria-label="Search overlays" />
        <a class="btn btn-outline-dark" href="/hurry">In a hurry</a>
        <BButton v-if="may('design')" variant="primary" @click="making = true">New overlay…</BButton>
      </div>
    </div>
    <section class="body p-3" aria-label="All overlays">
      <p v-if="said" class="said-error" role="alert">{{ said }}</p>
      <p v-if="query.isPending.value" class="empty">Reading the overlays.</p>
      <div v-else-if="all.length === 0" class="empty">
        <h2>Nothing lies above anything yet</h2>
        <p>
          A mark in a corner of every screen, a line along the foot, words in a hurry, a takeover prepared: each is said once, for a branch of the
          estate.
        </p>
        <BButton v-if="may('design')" variant="primary" @click="making = true">New overlay…</BButton>
      </div>
      <p v-else-if="lists.length === 0" class="empty">None is called so.</p>
      <table v-else class="table">
        <thead>
          <tr>
            <th scope="col">Overlay</th>
            <th scope="col">Where on the screen</th>
            <th scope="col">When</th>
            <th scope="col">For whom</th>
            <th scope="col">Now</th>
            <th scope="col"></th>
          </tr>
        </thead>
        <tbody v-for="list in lists" :key="list.title">
          <tr class="title">
            <th colspan="6" scope="rowgroup">{{ list.title }}</th>
          </tr>
          <tr v-for="one in list.rows" :key="one.id">
            <th scope="row">
              <RouterLink v-if="may('design')" :to="`/overlays/${one.id}`">{{ one.name }}</RouterLink><template v-else>{{ one.name }}</template>
              <span class="kind small soft">{{ documentOf(one.id)?.kind }}</span>
            </th>
            <td>{{ documentOf(one.id) ? liesAt(documentOf(one.id)!) : '' }}</td>
            <td>
              {{
                documentOf(one.id)?.kind === 'takeover' && !above.get(one.id)?.displays
                  ? 'when it is needed'
                  : documentOf(one.id)
                    ? saidWhen(documentOf(one.id)!.when)
                    : ''
              }}
            </td>
            <td>
              {{ putAt(one.id).join(', ') }}
              <span v-if="above.get(one.id)?.displays" class="small soft figures">{{ count(above.get(one.id)!.displays, 'display') }}</span>
            </td>
            <td :class="{ soft: !above.get(one.id)?.now, over: above.get(one.id)?.is_over }">
              {{ now(one.id)
              }}<span v-if="one.standing.displays > 0 && one.standing.older > 0" class="small older">
                an older version on {{ one.standing.older }}</span
              >
            </td>
            <td class="text-end">
              <a v-if="documentOf(one.id)?.kind === 'takeover'" class="btn btn-link btn-sm p-0 me-3 act" :href="`/hurry?takeover=${one.id}`"
                >show it</a
              >
              <button v-if="may('design')" type="button" class="btn btn-link btn-sm p-0 act" :aria-label="`Delete ${one.name}`" @click="remove(one)">
                delete
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <BModal v-model="making" no-close-on-backdrop title="New overlay" no-footer>
      <form class="make" @submit.prevent="make">
        <fieldset>
          <legend>What</legend>
          <label v-for="one in KINDS" :key="one.kind" class="choice"
            ><input v-model="kind" type="radio" name="kind" :value="one.kind" /><span
              ><b>{{ one.name }}</b> <span class="small soft">{{ one.says }}</span></span
            ></label
          >
        </fieldset>
        <label>Name<BFormInput v-model="name" maxlength="200" :placeholder="nameOfKind(kind)" /></label>
        <label
          >For whom
          <select v-model="at" class="form-select">
            <option value="">nobody yet{{ kind === 'takeover' ? ': prepared' : '' }}</option>
            <option v-for="place in places" :key="place.id" :value="place.id">
              {{ [...place.way, ''].join(', ').replace(/, $/, '') || place.name }}: {{ count(place.displays, 'display') }}
            </option>
          </select></label
        >
        <p v-if="trouble" class="said-error small" role="alert">{{ trouble }}</p>
        <BButton type="submit" variant="primary">Make it</BButton>
      </form>
    </BModal>
  </main>
</template>

<style scoped>
.act {
  min-height: 24px;
  line-height: 24px;
}
.title th {
  padding-top: 18px;
  font-size: 0.8125rem;
  color: var(--soft);
  border-bottom-color: var(--ink);
}
.kind {
  margin-left: 8px;
  font-weight: 400;
}
.older,
.over {
  color: var(--warning);
}
.make {
  display: grid;
  gap: 10px;
}
.make fieldset {
  border: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.choice {
  display: grid;
  grid-template-columns: 20px 1fr;
  gap: 6px;
}
tbody td,
tbody th {
  vertical-align: baseline;
}
</style>
