import type { Part, RunSheet } from '../../../web/src/pane/sheet'
import { type AddressOf, Stage, type Surface } from '../../../web/src/pane/stage'
import { type Element_, page } from './page'

/** What is put on the page for an instant, in the composer, in small pictures and in the player alike (web/src/pane/stage.ts). */

const rect = (x: number, y: number, width: number, height: number) => ({ x, y, width, height })
const addresses: Record<string, { url: string; type: string; thumbnail?: string }> = {
  pier: { url: '/files/pier.png', type: 'image/png' },
  quay: { url: '/files/quay.mp4', type: 'video/mp4' },
}
const addressOf: AddressOf = (id) => addresses[id] ?? null
const zone = rect(100, 50, 400, 200)
const picture = {
  id: 'z:i1',
  element: 'z',
  kind: 'zone',
  item: 'i1',
  rect: zone,
  drawn: rect(50, 50, 500, 200),
  media: { id: 'pier', name: 'pier.png', width: 500, height: 200 },
} satisfies Part
const film = {
  ...picture,
  id: 'z:f1',
  item: 'f1',
  media: { id: 'quay', name: 'quay.mp4', width: 500, height: 200, length_ms: 10_000 },
} satisfies Part
const words = {
  id: 't:',
  element: 't',
  kind: 'text',
  rect: rect(0, 0, 300, 80),
  drawn: rect(0, 0, 300, 80),
  text: 'Gate 7',
  style: { family: 'Inter', size_px: 60, weight: 700, color: '#ffffff', align: 'center', valign: 'bottom', line_height: 1.2 },
} satisfies Part
const shape = {
  id: 's:',
  element: 's',
  kind: 'shape',
  rect: rect(0, 0, 90, 90),
  drawn: rect(0, 0, 90, 90),
  shape: 'ellipse',
  fill: '#14665b',
} satisfies Part

type Layers = RunSheet['layers']
const sheet = (...layers: Layers): RunSheet => ({ canvas: { width: 1920, height: 540 }, background: '#102030', anchor_ms: 0, layers })
const change = (n: number, moves?: 'push' | 'wipe') => (moves && n ? { moves: { kind: moves, ms: 1000, from: 'left' as const } } : {})
const turns = (parts: Part[], fade = 1000, moves?: 'push' | 'wipe'): Layers[number] => ({
  id: 'z',
  zone: 'z',
  rect: zone,
  period_ms: 10_000 * parts.length,
  segments: parts.map((_, n) => ({ start_ms: 10_000 * n, length_ms: 10_000, fade_ms: n ? fade : 0, scene: n, ...change(n, moves) })),
  scenes: parts.map((part) => [{ part }]),
})

function opened(surface: Surface = 'desk') {
  const host = page.open()
  const stage = new Stage(host as unknown as HTMLElement, addressOf, surface)
  const canvas = host.children[0]!
  return { host, stage, canvas, parts: () => page.parts(canvas) }
}
const px = (one: Element_) => ['left', 'top', 'width', 'height'].map((side) => one.style[side])
const content = (one: Element_ | undefined) => one!.children[0]! as Element_ & Record<string, unknown>

export function places() {
  const { stage, canvas, parts } = opened()
  stage.show(sheet({ part: picture }, { part: words }, { part: shape }))
  stage.place(10, 20, 0.5)
  stage.draw(0, false)
  const [z, t, s] = parts()
  const line = content(t).children[0]!
  return [
    [canvas.style.width, canvas.style.height, canvas.style.background, canvas.style.transform],
    px(z!),
    px(content(z)),
    [content(z).tag, content(z).src],
    [z!.dataset.element, z!.dataset.item, [z, t, s].map((one) => one!.style.overflow ?? ''), z!.style.zIndex, t!.style.zIndex, s!.style.zIndex],
    [line.textContent, ...['fontFamily', 'fontSize', 'fontWeight', 'textAlign', 'justifyContent'].map((one) => content(t).style[one])],
    [content(s).style.background, content(s).style.borderRadius],
  ]
}

export function manyParts() {
  const { stage, parts } = opened()
  const stripe = (x: number) => ({ part: { ...shape, shape: 'rectangle' as const, rect: rect(x, 0, 10, 90), drawn: rect(x, 0, 10, 90) } })
  const lefts = () => parts().map((one) => one.style.left)
  stage.show(sheet(stripe(0), stripe(20), stripe(40)))
  stage.draw(0, false)
  const three = lefts()
  stage.show(sheet(stripe(0), stripe(20)))
  stage.draw(0, false)
  return [three, lefts()]
}

export function turnsOfItems() {
  const { stage, parts } = opened()
  stage.show(sheet(turns([picture, film])))
  const seen = [9999, 10_250, 11_000].map((at) => {
    const until = stage.draw(at, false)
    return [parts().map((one) => [one.dataset.item, one.opacity]), until]
  })
  const fades = parts()[0]!.parent!.parent!.animations.map((one) => one.isOver)
  return { seen, fades }
}

/** Where a change moves, both are seen through where the zone lies. */
export function moves() {
  return (['push', 'wipe'] as const).map((kind) => {
    const { stage, parts } = opened()
    stage.show(sheet(turns([picture, film], 0, kind)))
    stage.draw(10_250, false)
    return parts().map((one) => [one.seen, content(one).box.x])
  })
}

/** A film that follows itself while it fades is there twice, and neither is another than it was. */
export function followsItself() {
  const { stage, parts } = opened('player')
  const zone = turns([film, { ...film, id: 'z:f2', item: 'f2' }]) as Extract<Layers[number], { zone: string }>
  stage.show(sheet({ ...zone, segments: zone.segments.map((one, n) => ({ ...one, fade_ms: 1000, scene: n })) }))
  stage.draw(19_500, true)
  const [second] = parts().map(content)
  stage.draw(20_500, true)
  const [leaving, coming] = parts().map(content)
  stage.draw(21_500, true)
  return [leaving === second, coming !== second, content(parts()[0]) === coming, parts().length]
}

/** What runs by itself is not touched again until `draw` says so. */
export function untilWhen() {
  const { stage } = opened()
  const said = (layers: Layers, at: number) => {
    stage.show(sheet(...layers))
    return stage.draw(at, true)
  }
  const clock = (field: string): Part => ({
    ...words,
    text: '',
    id: 'c:',
    element: 'c',
    kind: 'clock',
    clock: { tokens: [{ field, digits: 2 }], offsets: [[0, 3_600_000]] },
  })
  return [
    said([{ part: picture }, { part: words }], 500),
    said([turns([picture, { ...picture, id: 'z:i2', item: 'i2' }])], 4000),
    said([turns([picture, { ...picture, id: 'z:i2', item: 'i2' }])], 10_400),
    said([{ part: clock('minute') }], 61_250),
    said([{ part: clock('second') }], 61_250),
    said([turns([film, picture])], 4000),
  ]
}

/** What is seen within 10 s stands loaded; what is seen no more is given back. */
export async function ready() {
  const { stage, parts } = opened('player')
  const later = { ...picture, id: 'z:i2', item: 'i2', media: { ...picture.media, id: 'later', name: 'later.png' } }
  addresses.later = { url: '/files/later.png', type: 'image/png' }
  const list = turns([picture, later, film])
  stage.show(sheet(list))
  const held = [1000, 5000, 10_500, 20_500].map((at) => {
    stage.draw(at, true)
    return [parts().map((one) => one.dataset.item), stage.pool.held]
  })
  const before = content(parts().at(-1))
  await stage.prepare(sheet(list, { part: words }), addressOf, 25_000)
  stage.show(sheet(list, { part: words }), addressOf)
  stage.draw(25_000, true)
  stage.destroy()
  return { held, goesOn: content(parts()[0] ?? before.parent!) === before || before.src === undefined }
}

/** The same film in another place is loaded before it is changed over to; where it stands already it goes on. */
export async function prepares() {
  const { stage } = opened('player')
  stage.show(sheet({ part: { ...film, id: 'a' } }))
  stage.draw(1000, true)
  const held = []
  for (const id of ['a', 'b']) {
    await stage.prepare(sheet({ part: { ...film, id } }), addressOf, 1000)
    held.push(stage.pool.held)
  }
  return held
}

/** So many pictures and films stand ready at the most. */
export function bounds() {
  const { stage } = opened()
  const media = (n: number, isFilm: boolean) => ({
    media: { id: `m${n}`, name: `m${n}`, width: 3840, height: 2160, ...(isFilm ? { length_ms: 9000 } : {}) },
    url: `/files/m${n}`,
  })
  stage.pool.prepare(Array.from({ length: 20 }, (_, n) => media(n, true)))
  const films = stage.pool.held
  stage.pool.prepare(Array.from({ length: 20 }, (_, n) => media(n, false)))
  return [films, stage.pool.held]
}

export function films() {
  const { stage, parts } = opened()
  const endless = { ...turns([film]), period_ms: null, segments: [{ start_ms: 0, length_ms: null, fade_ms: 0, scene: 0 }] } as Layers[number]
  stage.show(sheet(endless))
  stage.draw(4000, false)
  const f = content(parts()[0]) as unknown as {
    currentTime: number
    at: number
    paused: boolean
    seeks: number
    playbackRate: number
    muted: boolean
  }
  const still = [f.currentTime, f.paused, f.seeks]
  stage.draw(4010, true)
  const runs = [f.paused, f.seeks, f.playbackRate]
  f.at = 5
  stage.draw(5100, true)
  const drifts = [f.seeks, f.playbackRate]
  stage.draw(4900, true)
  const ahead = [f.seeks, f.playbackRate]
  stage.draw(7400, true)
  const far = [f.currentTime, f.seeks]
  stage.draw(9000, true)
  const again = f.seeks
  stage.draw(60_000, true)
  return { still, runs, drifts, ahead, far, again, held: [f.currentTime, f.paused], muted: f.muted }
}

export function drags() {
  const { stage, parts } = opened()
  stage.show(sheet({ part: picture }, { part: words }))
  stage.draw(0, false)
  const [z, t] = parts()
  stage.override('z', rect(110, 80, 400, 200))
  stage.override('t', rect(0, 0, 900, 80))
  stage.draw(16, false)
  const dragged = [
    [px(z!), z!.style.transform, px(content(z))],
    [px(t!), t!.style.transform, px(content(t))],
  ]
  stage.override('z', null)
  const dropped = [px(z!), z!.style.transform]
  stage.override('z', rect(0, 0, 1, 1))
  stage.show(sheet({ part: { ...picture } }, { part: words }))
  stage.draw(32, false)
  return [...dragged, dropped, px(z!)]
}

export function absent() {
  const said = (['desk', 'player'] as const).map((surface) => {
    const { stage, parts } = opened(surface)
    stage.show(sheet({ part: picture }), () => null)
    stage.draw(0, false)
    const gone = content(parts()[0]).textContent
    const there = stage.standing().map(({ isThere }) => isThere)
    stage.show(sheet({ part: picture }), addressOf)
    stage.draw(0, false)
    return [gone, there, content(parts()[0]).tag, parts().length]
  })
  return said
}

/** A film shows its small picture until its frame is there; where it is small itself that is all it shows. */
export function stills() {
  const told = (['desk', 'thumbnail'] as const).map((surface) => {
    const { stage, parts } = opened(surface)
    stage.show(sheet({ part: film }), () => ({ url: '/files/quay.mp4', type: 'video/mp4', thumbnail: '/files/quay-small.png' }))
    stage.draw(0, false)
    return [content(parts()[0]).tag, content(parts()[0]).style.background]
  })
  return told
}

export function twoPlaces() {
  const { host, stage, parts } = opened()
  stage.show(sheet({ part: picture }, { part: { ...picture, rect: rect(600, 0, 10, 10) } }))
  stage.draw(0, false)
  const twice = parts().length
  stage.show(sheet())
  stage.draw(0, false)
  const none = parts().length
  stage.destroy()
  return [twice, none, host.children.length]
}

/** An element that is put on a stage with others leaves these as they are. */
export function goesOn() {
  const { stage, parts } = opened('player')
  stage.show(sheet({ part: { ...words, id: 't' } }, { ...turns([{ ...film, id: 'z:f1' }]), id: 'z' }))
  stage.draw(4000, true)
  const before = content(parts().at(-1))
  stage.show(sheet({ part: { ...shape, id: 's' } }, { ...turns([{ ...film, id: 'z:f1' }]), id: 'z' }, { part: { ...words, id: 't' } }))
  stage.draw(4010, true)
  const after = parts().map((one) => one.dataset.element)
  return [after, content(parts()[1]) === before, before.seeks]
}
