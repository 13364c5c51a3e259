import { defineStore } from 'pinia'
import { computed, onBeforeUnmount, shallowRef, watchEffect } from 'vue'
import type { Rect } from '../formats/layout'

export type Level = 'stop' | 'warning' | 'hint'

export interface Fix {
  label: string
  element?: string
  rect?: Rect
  /** Of several elements, by id: moved together. */
  rects?: Record<string, Rect>
  item?: string
  items?: string[]
  /** Fields of the style of a text; null takes one away. */
  style?: Record<string, unknown>
  /** Fields of the element itself; null takes one away. */
  fields?: Record<string, unknown>
  panel?: string
  booking?: string
  set?: Record<string, unknown>
}

export type { Rect }

export interface Finding {
  code: string
  level: Level
  elements: string[]
  message: string
  rect?: Rect
  /** The figures alone. */
  measure?: Record<string, unknown>
  fix?: Fix
  /** Where choosing it leads, for matters that are no finding of a layout. */
  to?: string
  link?: string
}

/** What the checks shelf at the foot shows: the matters of what is open now. */
export const useShelf = defineStore('shelf', () => {
  const findings = shallowRef<Finding[]>([])
  const remark = shallowRef('')
  /** The things that are chosen now: what is found of them is told first. */
  const about = shallowRef<Set<string>>(new Set())
  const chosen = shallowRef<((finding: Finding) => void) | null>(null)
  const fixed = shallowRef<((finding: Finding) => void) | null>(null)
  const count = (level: Level) => computed(() => findings.value.filter((f) => f.level === level).length)

  return {
    findings,
    remark,
    about,
    chosen,
    fixed,
    stops: count('stop'),
    warnings: count('warning'),
    hints: count('hint'),
    clear() {
      findings.value = []
      about.value = new Set()
      remark.value = ''
      chosen.value = null
      fixed.value = null
    },
  }
})

/** The shelf of a page on which nothing is checked: a remark, as long as the page stands. */
export function useRemark(remark: () => string) {
  const shelf = useShelf()
  watchEffect(() => {
    shelf.findings = []
    shelf.remark = remark()
  })
  onBeforeUnmount(() => shelf.clear())
}
