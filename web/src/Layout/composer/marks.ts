import type { Mark } from '../designs'

/** The parts of a text that are set otherwise: what hands do with them. Characters are Unicode code points, as everywhere in a layout. */

const LOOKS = ['weight', 'size', 'color'] as const
export type MarkLook = Pick<Mark, (typeof LOOKS)[number]>

const alike = (a: MarkLook, b: MarkLook) => LOOKS.every((look) => a[look] === b[look])
const isPlain = (mark: MarkLook) => LOOKS.every((look) => mark[look] === undefined)
const tidy = (mark: Mark): Mark => Object.fromEntries(Object.entries(mark).filter(([, value]) => value !== undefined)) as unknown as Mark

/** Where a place in a field of the browser (UTF-16) lies in characters. */
export const characterAt = (text: string, place: number): number => [...text.slice(0, place)].length

/** [from, to) set otherwise; `undefined` takes a look away. What looks alike side by side is one mark. */
export function marked(marks: Mark[], from: number, to: number, look: MarkLook): Mark[] {
  if (from >= to) return marks
  const edges = [...new Set([from, to, ...marks.flatMap((m) => [m.from, m.to])])].sort((a, b) => a - b)
  const parts: Mark[] = []
  for (const [i, edge] of edges.slice(0, -1).entries()) {
    const end = edges[i + 1]!
    const there = marks.find((m) => m.from <= edge && m.to >= end)
    const part: Mark = { ...there, ...(edge >= from && end <= to ? look : {}), from: edge, to: end }
    if (isPlain(part)) continue
    const last = parts.at(-1)
    if (last && last.to === part.from && alike(last, part)) last.to = part.to
    else parts.push(tidy(part))
  }
  return parts
}

/** What all of [from, to) has in common; what differs is left out. */
export function lookOf(marks: Mark[], from: number, to: number): MarkLook {
  const over = marks.filter((m) => m.from < to && m.to > from)
  const covered = over.reduce((sum, m) => sum + Math.min(to, m.to) - Math.max(from, m.from), 0)
  const [first] = over
  if (!first || covered < to - from) return {}
  return Object.fromEntries(LOOKS.filter((look) => over.every((m) => m[look] === first[look])).map((look) => [look, first[look]]))
}

/** The marks of a text that has been typed over: what stands before and behind the change keeps its own, what is typed within a mark or at its end belongs to it. */
export function shifted(marks: Mark[], before: string, after: string): Mark[] {
  const [old, now] = [[...before], [...after]]
  let head = 0
  while (head < old.length && head < now.length && old[head] === now[head]) head++
  let tail = 0
  while (tail < old.length - head && tail < now.length - head && old[old.length - 1 - tail] === now[now.length - 1 - tail]) tail++
  const [end, by] = [old.length - tail, now.length - old.length]
  return marks
    .map((m) => ({
      ...m,
      from: m.from >= end ? m.from + by : m.from < head ? m.from : head,
      to: m.to < head ? m.to : m.to >= end ? m.to + by : head,
    }))
    .filter((m) => m.to > m.from)
}
