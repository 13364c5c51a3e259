import { readFileSync } from 'node:fs'
import type { RunSheet } from '../../../web/src/pane/sheet'
import { Stage } from '../../../web/src/pane/stage'
import { located } from './located'
import { cut, page } from './page'

/** What stands on the stage at each of many instants: boxes, words and hands, the lowest first. Sheets and instants come in a file. */
export function drawn() {
  const asked = JSON.parse(readFileSync(process.env.SCENE_GIVEN!, 'utf8')) as [RunSheet, number[]][]
  return asked.map(([sheet, instants]) => {
    located(sheet.layers)
    const host = page.open()
    const stage = new Stage(host as unknown as HTMLElement, (id) => ({ url: `/files/${id}`, type: 'image/png' }))
    stage.show(sheet)
    return instants.map((at) => {
      stage.draw(at, false)
      return page.parts(host.children[0]!).map((part) => {
        const content = part.children[0]!
        const moving = content.all().find((one) => one.animations.length > 0) ?? content
        const hands = content.all().filter((one) => one.dataset.hand !== undefined)
        return {
          element: part.dataset.element,
          item: part.dataset.item ?? null,
          kind: part.dataset.kind,
          // What fills is seen through a window of its own.
          rect: part.dataset.kind === 'shape' ? cut(moving.box, part.seen) : part.seen,
          drawn: (part.dataset.kind === 'ticker' ? moving : content).box,
          opacity: part.opacity,
          text: content
            .all()
            .map((one) => one.textContent)
            .join(''),
          hands: hands.map((one) => one.attributes.transform),
          into: 'currentTime' in content ? Math.round(1000 * (content.currentTime as number)) : null,
        }
      })
    })
  })
}
