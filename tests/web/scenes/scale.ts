import { ref } from 'vue'
import { usePaneScale } from '@/Layout/composer/paneScale'

/** How large the canvas is on the pane (web/src/Layout/composer/paneScale.ts). */
export function fitted() {
  const view = usePaneScale(ref(1002), ref(540), ref({ width: 2000, height: 1000 }))
  const now = () => [Math.round(view.scale.value * 1000) / 1000, view.left.value, view.top.value]
  const fitted = now()
  // The point of the canvas at 82, 70 of the pane stays there.
  view.zoomTo(0.9, { x: 82, y: 70 })
  const larger = now()
  view.pan(10, -5)
  const panned = now()
  view.fit()
  const back = view.isFitted.value && JSON.stringify(now()) === JSON.stringify(fitted)
  view.zoomTo(1e6)
  const most = view.scale.value
  view.zoomTo(0)
  const least = view.scale.value
  view.zoomTo(2)
  view.show({ x: 290, y: 190, width: 20, height: 20 })
  return [fitted, larger, panned, back, [most, least], [(501 - view.left.value) / 2, (270 - view.top.value) / 2]]
}
