import { readFileSync } from 'node:fs'
import { type RunSheet, nextChange } from '../../../web/src/pane/sheet'
import { Stage } from '../../../web/src/pane/stage'
import { Tally } from '../../../web/src/player/tally'
import { located } from './located'
import { page } from './page'

/** A player that runs for long: stepped from change to change, with what it holds counted. */

const given = () => JSON.parse(readFileSync(process.env.SCENE_GIVEN!, 'utf8')) as { sheets: RunSheet[]; hours: number; releases: number }

function player() {
  const { sheets, hours, releases } = given()
  for (const sheet of sheets) located(sheet.layers)
  const host = page.open()
  const addressOf = (id: string) => ({ url: `/files/${id}`, type: '' })
  const stage = new Stage(host as unknown as HTMLElement, addressOf, 'player')
  return { stage, sheets, hours, releases, addressOf, canvas: host.children[0]!, tally: new Tally() }
}

const collect = (globalThis as { gc?: () => void }).gc ?? (() => undefined)

export async function aDay() {
  const { stage, sheets, hours, canvas, tally } = player()
  const told: object[] = []
  for (const [n, sheet] of sheets.entries()) {
    stage.show(sheet)
    const begin = sheet.anchor_ms
    const [most, least, heaps] = [{ elements: 0, films: 0 }, { elements: Infinity }, [] as number[]]
    let [at, draws, hour] = [begin, 0, 0]
    while (at < begin + hours * 3_600_000) {
      stage.draw(at, true)
      tally.look(at, stage.standing())
      for (let batch = tally.next(); batch; batch = tally.next()) tally.arrived(batch.id)
      draws++
      const elements = canvas.all().length
      most.elements = Math.max(most.elements, elements)
      least.elements = Math.min(least.elements, elements)
      most.films = Math.max(most.films, page.films())
      if (Math.floor((at - begin) / 900_000) > hour) {
        hour++
        // What has been promised meanwhile comes to its end, as between two frames of a browser.
        await new Promise((done) => setImmediate(done))
        collect()
        heaps.push(process.memoryUsage().heapUsed)
      }
      const next = nextChange(sheet, at)
      at = Math.min(next ?? Infinity, at + 10_000)
    }
    told.push({ n, draws, ...most, heaps })
  }
  stage.destroy()
  return { told, filmsLeft: page.films(), elementsLeft: canvas.all().length }
}

export async function manyReleases() {
  const { stage, sheets, releases, addressOf, canvas } = player()
  const most = { elements: 0, films: 0, ready: 0 }
  for (let n = 0; n < releases; n++) {
    const sheet = sheets[n % sheets.length]!
    // Taken at any moment, also in the middle of a fade.
    const at = sheet.anchor_ms + 7919 * n
    await stage.prepare(sheet, addressOf, at)
    stage.show(sheet, addressOf)
    for (const later of [0, 400, 900]) stage.draw(at + later, true)
    most.elements = Math.max(most.elements, canvas.all().length)
    most.films = Math.max(most.films, page.films())
    most.ready = Math.max(most.ready, stage.pool.held)
  }
  stage.destroy()
  return { most, filmsLeft: page.films(), elementsLeft: canvas.all().length }
}
