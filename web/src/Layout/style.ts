import { useQuery } from '@tanstack/vue-query'
import { type InjectionKey, type MaybeRefOrGetter, type Ref, computed, inject, ref, toValue } from 'vue'
import type { Style as StyleDocument } from '../formats/style'
import type { RunSheet } from '../pane/sheet'
import { api } from '../ui/api'
import type { Addresses } from './designs'

export type { StyleDocument }

/** What each name of a house style means where something is designed, and which style says so. */
export interface HouseStyle {
  id: string | null
  name: string | null
  colours: { name: string; hex: string; from: string }[]
  faces: { name: string; family: string; weight: number | null; from: string }[]
  sizes: { name: string; unit: 'px' | 'share' | 'arcmin'; value: number; px: number; from: string }[]
  marks: { name: string; media: { id?: string; name: string; width: number; height: number }; from: string }[]
}

export interface Look extends HouseStyle {
  contrasts: { text: string; ground: string; ratio: number; normal: boolean; large: boolean }[]
}

export interface StyleReach {
  names: string[]
  designs: { id: string; kind: 'layout' | 'filled' | 'playlist' | 'schedule'; name: string; revision: number; worse: string[]; better: string[] }[]
  displays: { id: string; name: string; kind: string; source: string; called: string }[]
}

export interface Picture {
  run_sheet: RunSheet
  media: Addresses
}

/** The house style in which what is on the page is designed. */
export const styleKey: InjectionKey<Ref<HouseStyle | null>> = Symbol('house style')
export const useStyleHere = () => inject(styleKey, ref(null))

export function useHouseStyle(display: MaybeRefOrGetter<string | null>, canvas: MaybeRefOrGetter<{ width: number; height: number } | null>) {
  const asked = computed(() => ({ display: toValue(display) ?? '', width: toValue(canvas)?.width ?? 1920, height: toValue(canvas)?.height ?? 1080 }))
  const { data } = useQuery({
    queryKey: ['house-style', asked],
    queryFn: () =>
      api.get<HouseStyle>(`house-style?${new URLSearchParams(Object.entries(asked.value).map(([name, value]) => [name, String(value)])).toString()}`),
    placeholderData: (before) => before,
  })
  return computed(() => data.value ?? null)
}

/** The name that a value is, without its sign; null where it is a value itself. */
export const nameIn = (value: unknown): string | null => (typeof value === 'string' && value.startsWith('@') ? value.slice(1) : null)

/** A size as people say it. */
export const inWords = (size: { unit: string; value: number }): string =>
  size.unit === 'px' ? `${size.value} px` : size.unit === 'share' ? `${+(100 * size.value).toFixed(2)} % of the height` : `${size.value}′`

/** What values of a design mean that the house style may name, where it is designed. */
export function useMeaning() {
  const house = useStyleHere()
  return {
    family: (value: string | undefined): string | undefined =>
      house.value?.faces.find((one) => one.name === nameIn(value))?.family ?? (nameIn(value) === null ? value : undefined),
    hex: (value: string): string =>
      nameIn(value) === null ? value : (house.value?.colours.find((one) => one.name === nameIn(value))?.hex ?? '#000000'),
    px: (value: number | string): number =>
      typeof value === 'number' ? value : (house.value?.sizes.find((one) => one.name === nameIn(value))?.px ?? 40),
  }
}
