import { useRafFn } from '@vueuse/core'
import { type ComputedRef, type InjectionKey, type Ref, computed, inject, ref } from 'vue'
import { type RunSheet, isZone, nextChange, positionIn, previousChange, segmentAt, slotsBetween } from '../../pane/sheet'
import type { Analysis, Element, Item } from '../designs'

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

/** The items of a zone that take their turn, in the order of the scenes of its run sheet. */
export const itemsOf = (element: Element | undefined): Item[] =>
  element?.kind === 'zone' && 'items' in element.playlist ? element.playlist.items.filter((i) => i.enabled !== false) : []

export function dueItems(sheet: RunSheet, elements: Element[], at: number): Record<string, string> {
  const due: Record<string, string> = {}
  for (const zone of sheet.layers.filter(isZone)) {
    const items = itemsOf(elements.find((e) => e.id === zone.zone))
    if (items.length === 0 || zone.segments.length === 0) continue
    due[zone.zone] = items[zone.segments[segmentAt(zone, positionIn(zone, at - sheet.anchor_ms))]!.scene]?.id ?? ''
  }
  return due
}

/** The next instant from `at` on at which an item stands fully in its zone; null where it never does. */
export function nextDue(sheet: RunSheet, elements: Element[], zoneId: string, item: string, at: number): number | null {
  const zone = sheet.layers.filter(isZone).find((z) => z.zone === zoneId)
  const scene = itemsOf(elements.find((e) => e.id === zoneId)).findIndex((i) => i.id === item)
  if (!zone || scene < 0) return null
  const slot = slotsBetween(zone, sheet.anchor_ms, at, at + (zone.period_ms ?? 0) + 1).find((s) => zone.segments[s.segment]!.scene === scene)
  return slot ? slot.from + zone.segments[slot.segment]!.fade_ms : null
}

export function makeHand(analysis: Ref<Analysis | null>, elements: ComputedRef<Element[]>): Hand {
  const at = ref(Date.now())
  const running = ref(true)
  useRafFn(() => {
    if (running.value) at.value = Date.now()
  })
  const sheet = computed(() => analysis.value?.run_sheet ?? null)
  // As text first, so that what looks at it is drawn anew only when something changes, not at every frame.
  const dueText = computed(() => JSON.stringify(sheet.value ? dueItems(sheet.value, elements.value, at.value) : {}))
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
    toItem: (zone, item) => to(sheet.value && nextDue(sheet.value, elements.value, zone, item, at.value)),
    toChange: (forward) => to(sheet.value && (forward ? nextChange : previousChange)(sheet.value, at.value)),
  }
}
