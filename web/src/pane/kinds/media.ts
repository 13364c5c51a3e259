import { FilmRun } from '../film'
import { giveBack, settled } from '../pool'
import { type MediaPart, mod, offsetAt } from '../sheet'
import type { Kind, Tools } from './kind'

const MIRRORED = { across: 'scaleX(-1)', down: 'scaleY(-1)', both: 'scale(-1, -1)', none: '' }
/** A film that should run and has not moved for so long stands still. */
const STALLED_MS = 4000
/** MediaError.code, HTML, 4.8.11.1. */
const ERRORS: Record<number, string> = {
  2: 'stopped coming while it was read',
  3: 'cannot be decoded: it is damaged, or this machine cannot play its codec',
  4: 'is of a kind that this browser cannot play',
}

/** A picture or a film, in a zone or by itself. */
export const media: Kind<MediaPart> = (part, tools) => {
  const address = part.media.id ? tools.addressOf(part.media.id) : null
  if (!address) return absent(part, tools)
  const isFilm = part.media.length_ms !== undefined
  if (isFilm && tools.surface === 'thumbnail') return still(part, address.thumbnail ?? null)
  const element = tools.pool.take(part.media, address.url)
  // Shows through until the film has decoded its frame, which takes as long as the film's key frames are apart.
  if (isFilm && address.thumbnail) element.style.background = `0 0 / 100% 100% url("${address.thumbnail}")`
  return element instanceof HTMLVideoElement ? film(element, part, tools) : picture(element, part)
}

const look = (element: HTMLElement) => (part: MediaPart) => {
  element.style.transform = MIRRORED[part.flip ?? 'none']
}

function absent(part: MediaPart, tools: Tools): ReturnType<typeof media> {
  const element = document.createElement('div')
  if (tools.surface !== 'player') {
    Object.assign(element.style, { background: '#8b8f8d', color: '#17272e', font: '24px sans-serif', padding: '8px', overflow: 'hidden' })
    element.textContent = `${part.media.name} is not there`
  }
  // What is wrong is told by who fetches it.
  return { element, isFitted: true, look: () => undefined, isThere: () => false }
}

function still(part: MediaPart, url: string | null): ReturnType<typeof media> {
  const element = document.createElement('div')
  element.style.background = url === null ? '#17272e' : `0 0 / 100% 100% url("${url}")`
  return { element, isFitted: true, staysWithin: true, look: look(element) }
}

function picture(element: HTMLImageElement, part: MediaPart): ReturnType<typeof media> {
  let state: 'comes' | 'there' | 'broken' = 'comes'
  element.decode().then(
    () => (state = 'there'),
    () => (state = 'broken'),
  )
  return {
    element,
    isFitted: true,
    staysWithin: true,
    look: look(element),
    isThere: () => state === 'there',
    trouble: () => (state === 'broken' ? `"${part.media.name}" cannot be decoded` : null),
    settled: () => settled(element),
    destroy: () => giveBack(element),
  }
}

function film(element: HTMLVideoElement, part: MediaPart, tools: Tools): ReturnType<typeof media> {
  const length = part.media.length_ms ?? 0
  const run = new FilmRun(element, () => (tools.heldBack = true))
  let drawnFrame = false
  let moved = { at: 0, to: -1 }
  const wake = () => tools.wake()
  const seen = () => element.requestVideoFrameCallback?.(() => (drawnFrame = true))
  for (const one of ['loadeddata', 'seeked', 'error'] as const) element.addEventListener(one, wake)
  seen()
  let stalled = false
  return {
    element,
    isFitted: true,
    staysWithin: true,
    look: look(element),
    tell(part, { at, offset, runs, isHeld }) {
      if (tools.surface === 'player') hear(element, volumeAt(part, at), tools.heldBack)
      const into = offset ?? 0
      const again = run.stand(into, length, runs, isHeld)
      if (Number.isFinite(again) && moved.to === element.currentTime) stalled = at - moved.at > STALLED_MS
      else {
        moved = { at, to: element.currentTime }
        stalled = false
      }
      return at + again
    },
    isThere: () => drawnFrame || (element.requestVideoFrameCallback === undefined && element.readyState >= 2),
    trouble() {
      if (element.error) return `"${part.media.name}" ${ERRORS[element.error.code] ?? 'cannot be played'}`
      return stalled ? `"${part.media.name}" stands still: this machine does not keep up` : null
    },
    settled: () => settled(element),
    destroy() {
      for (const one of ['loadeddata', 'seeked', 'error'] as const) element.removeEventListener(one, wake)
      giveBack(element)
    },
  }
}

/** Percent. */
export function volumeAt(part: MediaPart, at: number): number {
  const s = mod(Math.floor((at + offsetAt(part, at)) / 1000), 86_400)
  const level = part.levels?.find(([from, to]) => (from < to ? s >= from && s < to : s >= from || s < to))
  return level?.[2] ?? part.volume ?? 0
}

function hear(film: HTMLVideoElement, percent: number, heldBack: boolean): void {
  const volume = percent / 100
  const muted = volume === 0 || heldBack
  if (film.muted !== muted) film.muted = muted
  if (film.volume !== volume) film.volume = volume
}
