import { useRafFn } from '@vueuse/core'
import { type ComputedRef, type InjectionKey, type Ref, computed, inject, ref } from 'vue'
import { isZone, nextChange, previousChange, sceneAt, slotsBetween } from '../../pane/sheet'
import type { Analysis } from '../designs'

/** The hand of the tide table: the instant at which the pane is shown. Only what follows it is drawn anew when it moves. */
export interface Hand {
  at: Ref<number>
  running: Ref<boolean>
  /** Which item of each zone is due. */
  due: ComputedRef<Record<string, string>>
  /** Stops the clock at this instant. */
  to(instant: number | null): void
  toItem(zone: string, item: string): void
  toChange(forward: boolean): void
}

export const handKey: InjectionKey<Hand> = Symbol('hand')

export function useHand(): Hand {
  const hand = inject(handKey)
  if (!hand) throw new Error('No hand here.')
  return hand
}

export function dueItems({ run_sheet, playing }: Analysis, at: number): Record<string, string> {
  const due: Record<string, string> = {}
  for (const zone of run_sheet.layers.filter(isZone)) {
    const scene = sceneAt(zone, run_sheet.anchor_ms, at)
    if (scene !== null) due[zone.zone] = playing[zone.zone]?.scenes[scene]?.id ?? ''
  }
  return due
}

/** A day is searched for an item that comes and goes. */
const SEARCHED_MS = 86_400_000

/** The next instant from `at` on at which an item stands fully in its zone; null where it never does. */
export function nextDue({ run_sheet, playing }: Analysis, zoneId: string, item: string, at: number): number | null {
  const zone = run_sheet.layers.filter(isZone).find((z) => z.zone === zoneId)
  const scene = playing[zoneId]?.scenes.findIndex((i) => i.id === item) ?? -1
  if (!zone || scene < 0) return null
  const within = zone.turns ? SEARCHED_MS : (zone.period_ms ?? 0) + 1
  const slot = slotsBetween(zone, run_sheet.anchor_ms, at, at + within).find((s) => s.scene === scene)
  return slot ? slot.from + slot.fading : null
}

/** @param moving as long as a hand moves something about, the clock stands still */
export function makeHand(analysis: Ref<Analysis | null>, moving: Ref<boolean> = ref(false)): Hand {
  const at = ref(Date.now())
  const running = ref(true)
  useRafFn(() => {
    if (running.value && !moving.value) at.value = Date.now()
  })
  const sheet = computed(() => analysis.value?.run_sheet ?? null)
  // As text first, so that what looks at it is drawn anew only when something changes, not at every frame.
  const dueText = computed(() => JSON.stringify(analysis.value ? dueItems(analysis.value, at.value) : {}))
  const to = (instant: number | null) => {
    if (instant === null) return
    running.value = false
    at.value = instant
  }
  return {
    at,
    running,
    due: computed(() => JSON.parse(dueText.value) as Record<string, string>),
    to,
    toItem: (zone, item) => to(analysis.value && nextDue(analysis.value, zone, item, at.value)),
    toChange: (forward) => to(sheet.value && (forward ? nextChange : previousChange)(sheet.value, at.value)),
  }
}
