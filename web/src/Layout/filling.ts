import { useQuery } from '@tanstack/vue-query'
import { type Ref, computed } from 'vue'
import type { Filled as FilledDocument } from '../formats/filled'
import type { LayoutDocument } from './designs'
import { useAnswer } from '../ui/answer'
import { api } from '../ui/api'
import type { Finding, Rect } from '../ui/shelf'
import type { Picture } from './style'

export type { FilledDocument }
export type Values = FilledDocument['values']
export type Value = Values[string]
export type Slot = NonNullable<LayoutDocument['slots']>[number]
export type SlotOf<K extends Slot['kind']> = Extract<Slot, { kind: K }>
/** A slot, and where what it opens is seen. */
export type PlacedSlot = Slot & { places: Rect[] }

export interface Room {
  letters: number
  words: number
}

/** What the core says of what is being filled in. */
export interface Look extends Picture {
  findings: Finding[]
  stops: number
  warnings: number
  hints: number
  /** For how much more there is room, by slot and language (under "" where there is one text for all); null where there is plenty, or nobody knows. */
  room: Record<string, Record<string, Room | null>>
  slots: PlacedSlot[]
  /** With its newest revision, whichever this goes by. */
  template: { id: string; name: string; newest: number | null }
  match: { verdict: 'exact' | 'scaled' | 'padded' | 'crossed'; scale: number; target: Rect; used: number } | null
}

/** @param language in which texts are seen; null where they take turns */
export function useLook(document: Ref<FilledDocument | null>, display: Ref<string | null>, language: Ref<string | null>) {
  return useAnswer(
    () => (document.value ? { document: document.value, display: display.value, ...(language.value ? { language: language.value } : {}) } : null),
    (asked, signal) => api.post<Look>('filling', asked, signal),
    () => 60,
  )
}

/** Whether a value says anything: white space and an empty list are nothing. */
export const says = (value: Value | undefined): boolean =>
  value !== undefined && (typeof value !== 'string' || value.trim() !== '') && !(Array.isArray(value) && value.length === 0)

/** Whether it has to be filled in, and nobody has. */
export const isMissing = (slot: Slot, value: Value | undefined): boolean => slot.required === true && slot.default === undefined && !says(value)

export interface FilledInto {
  id: string
  name: string
  revision: number
  template_revision: number
  is_older: boolean
  displays: number
  saved_at: string
  saved_by: string | null
}

/** All that is filled into a template. */
export function useFilledInto(template: Ref<string>, revision: Ref<number>) {
  const query = useQuery({
    queryKey: ['filled-into', template, revision],
    queryFn: () => api.get<{ filled: FilledInto[] }>(`layouts/${template.value}/filled`),
  })
  return { query, filled: computed(() => query.data.value?.filled ?? []) }
}
