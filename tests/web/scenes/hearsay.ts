import { readFileSync } from 'node:fs'
import type { Raw } from '../../../web/src/player/answering'
import { Hearsay } from '../../../web/src/player/hearsay'

/** What is said before a display, one thing a millisecond (web/src/player/hearsay.ts). */
export function told() {
  const hearsay = new Hearsay()
  const said = JSON.parse(readFileSync(`${process.env.SCENE_GIVEN}`, 'utf8')) as Raw[]
  const from = Date.parse('2026-06-01T00:00:00Z')
  said.forEach((one, n) => hearsay.hear(one, from + n, n % 2 === 0))
  return hearsay.told()
}
