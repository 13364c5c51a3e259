import type { BoardElement } from '../../designs'
import type { ElementKind } from '../kinds'
import BoardDetails from './BoardDetails.vue'
import BoardHandles from './BoardHandles.vue'
import BoardPicker from './BoardPicker.vue'
import { pagesOf } from './pattern'

export const board: ElementKind = {
  kind: 'board',
  key: 'b',
  Details: BoardDetails,
  isWide: true,
  isOutlined: true,
  begins: BoardPicker,
  Handles: BoardHandles,
  figures: (one, analysis) => {
    const told = analysis?.boards[one.id]
    return told ? pagesOf(told) : (one as BoardElement).rows.source
  },
}
