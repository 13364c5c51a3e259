<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, onBeforeUnmount, useTemplateRef, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import { clock, day, zoneName } from '../ui/format'
import { useGrowingPlaces } from '../ui/growing'
import LevelMark from '../ui/LevelMark.vue'
import ListEnd from '../ui/ListEnd.vue'
import { may } from '../ui/rights'
import { useSecond } from '../ui/second'
import { useShelf } from '../ui/shelf'
import DisplayPicture from './DisplayPicture.vue'
import { type DisplayState, useEstate } from './estate'
import { matters } from './matters'

const { query, displays, findings, byPlace, plays, notHandedOver } = useEstate()
const at = useSecond()
const shelf = useShelf()
const room = useTemplateRef('room')
const { width } = useElementSize(room)

// All displays to one scale: the widest place has to fit its row, and a small display has to stay visible.
const pxPerMm = computed(() => {
  const widest = Math.max(1, ...byPlace.value.map((p) => p.displays.reduce((sum, d) => sum + d.active_mm.width, 0)))
  const gaps = Math.max(0, ...byPlace.value.map((p) => p.displays.length)) * 30
  return Math.max(0.06, Math.min(0.15, (width.value - 48 - gaps) / widest))
})
const { shown, left, end } = useGrowingPlaces(byPlace)
const metre = computed(() => Math.round(1000 * pxPerMm.value))

const zones = computed(() => [...new Set(displays.value.map((d) => d.timezone))])

/** What is on its way is no matter of the day, and surveys are looked at where displays are. */
const wrong = computed(() => matters(findings.value, (code) => code !== 'player.changing' && code !== 'survey.found'))

watchEffect(() => {
  shelf.findings = wrong.value
  shelf.remark = `${plays.value.length} of ${displays.value.length} displays report that they play what they should`
})
onBeforeUnmount(() => shelf.clear())

/** What one may not open is no way out. */
const router = useRouter()
const mayGo = (to: string) => {
  const { needs } = router.resolve(to).meta
  return !needs || may(needs)
}

const isLate = (d: DisplayState) => d.standing.state === 'silent'
</script>

<template>
  <main class="station">
    <div class="head">
      <div>
        <h1>Today, {{ day(at) }}</h1>
        <p class="facts m-0">
          {{ displays.length }} displays at {{ byPlace.length }} places, drawn to one scale · {{ plays.length }} play what is due
          <template v-for="zone in zones" :key="zone">
            · {{ zone.split('/')[1]?.replace('_', ' ') }} <span class="figures">{{ clock(at, zone) }} {{ zoneName(zone, at) }}</span></template
          >
        </p>
      </div>
      <div class="actions">
        <RouterLink v-if="notHandedOver.length && $may('hand-over')" class="btn btn-primary" to="/handover">Hand over changes…</RouterLink>
      </div>
    </div>
    <div class="columns today">
      <aside class="leaf" aria-label="What needs you">
        <h2>What needs you</h2>
        <p v-if="wrong.length === 0 && displays.length" class="px-3 soft">Nothing. All displays play what they should.</p>
        <ul>
          <li v-for="(m, i) in wrong" :key="i">
            <LevelMark :level="m.level" />
            <span
              >{{ m.message }} <RouterLink v-if="m.to && mayGo(m.to)" :to="m.to">{{ m.link }}</RouterLink></span
            >
          </li>
        </ul>
      </aside>
      <section ref="room" class="body wall" aria-label="All displays">
        <p v-if="query.error.value && displays.length === 0" class="empty said-error">
          {{ query.error.value.message }}
        </p>
        <div v-else-if="query.data.value && displays.length === 0" class="empty">
          <h2>No display is surveyed yet</h2>
          <p>The displays of the estate appear here with what they show.</p>
        </div>
        <div v-for="place in shown" :key="place.id" class="place">
          <div class="group-head">
            <h2>{{ place.displays[0]!.way.slice(1).join(', ') || place.name }}</h2>
            <span class="soft small">{{ place.all.length }} {{ place.all.length === 1 ? 'display' : 'displays' }}</span>
          </div>
          <div class="row-of">
            <RouterLink
              v-for="d in place.displays"
              :key="d.id"
              class="one"
              :to="`/displays?display=${d.id}`"
              :class="{ late: isLate(d) }"
              :style="{ width: `${Math.max(84, d.active_mm.width * pxPerMm)}px` }"
            >
              <div class="frame" :style="{ width: `${d.active_mm.width * pxPerMm}px` }">
                <DisplayPicture :display="d" :at="at" />
              </div>
              <span class="name">{{ d.name }}</span>
              <span class="figures state">{{ isLate(d) ? 'silent' : d.release ? `release ${d.release.number}` : 'nothing yet' }}</span>
            </RouterLink>
          </div>
        </div>
        <div ref="end"><ListEnd :left="left" /></div>
        <p class="scale figures" :style="{ width: `${metre}px` }">1 m</p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.today {
  grid-template-columns: 330px minmax(0, 1fr);
}
aside h2 {
  font-size: 0.875rem;
  color: var(--soft);
  padding: 11px 14px 3px;
}
aside ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
aside li {
  display: flex;
  gap: 10px;
  padding: 9px 14px;
  border-bottom: 1px solid var(--rule);
  font-size: 0.875rem;
}
aside li svg {
  margin-top: 4px;
}
aside a {
  font-weight: 650;
}
.wall {
  padding: 14px 20px 20px;
  position: relative;
}
.place {
  margin-bottom: 18px;
}
.row-of {
  display: flex;
  flex-wrap: wrap;
  gap: 14px 26px;
  align-items: flex-end;
}
.one {
  color: var(--ink);
  text-decoration: none;
  display: flex;
  flex-direction: column;
  font-size: 0.8125rem;
  line-height: 1.25;
}
.frame {
  border: 2px solid var(--ink);
  box-sizing: content-box;
  margin-bottom: 3px;
}
.one.late .frame {
  border-color: var(--stop);
  border-width: 3px;
}
.one.late .state {
  color: var(--stop);
}
.one:hover .name {
  text-decoration: underline;
}
.name {
  white-space: nowrap;
}
.state {
  color: var(--soft);
  white-space: nowrap;
}
.scale {
  margin: 0 0 0 auto;
  text-align: center;
  border: solid var(--ink);
  border-width: 0 1px 1px;
  line-height: 16px;
}
</style>
