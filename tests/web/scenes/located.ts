import { type RunSheet, isZone } from '../../../web/src/pane/sheet'

/** Media of the core's own documents are known by their names alone. */
export function located(layers: RunSheet['layers']): void {
  for (const layer of layers) {
    if (isZone(layer)) layer.scenes.forEach(located)
    else if ('media' in layer.part) layer.part.media.id = layer.part.media.name
  }
}
