import { type Ref, computed, ref } from 'vue'

/** px of the pane that are left around the canvas for rulers and dimension lines. */
const MARGIN = { left: 66, top: 60, right: 36, bottom: 30 }
const LEAST = 0.02
const MOST = 64
const STEP = 1.25

/** How large the canvas is shown, and where: fitted into the room, or at a factor that was chosen, moved by hand. */
export function usePaneScale(width: Ref<number>, height: Ref<number>, canvas: Ref<{ width: number; height: number }>) {
  /** null fits the canvas into the room. */
  const factor = ref<number | null>(null)
  const shift = ref({ x: 0, y: 0 })
  const room = computed(() => ({ width: width.value - MARGIN.left - MARGIN.right, height: height.value - MARGIN.top - MARGIN.bottom }))
  const fitted = computed(() => Math.max(0.01, Math.min(room.value.width / canvas.value.width, room.value.height / canvas.value.height)))
  const scale = computed(() => factor.value ?? fitted.value)
  const centred = (at: number, whole: number, length: number, by: number) =>
    Math.round(at + (whole - length * scale.value) / 2 + (factor.value === null ? 0 : by))
  const left = computed(() => centred(MARGIN.left, room.value.width, canvas.value.width, shift.value.x))
  const top = computed(() => centred(MARGIN.top, room.value.height, canvas.value.height, shift.value.y))

  /** Shows it at another scale, the point of the pane (px) where it is. */
  function zoomTo(next: number, about = { x: width.value / 2, y: height.value / 2 }) {
    const to = Math.max(LEAST, Math.min(MOST, next))
    const at = { x: (about.x - left.value) / scale.value, y: (about.y - top.value) / scale.value }
    factor.value = to
    shift.value = { x: 0, y: 0 }
    shift.value = { x: about.x - left.value - at.x * to, y: about.y - top.value - at.y * to }
  }

  return {
    scale,
    left,
    top,
    isFitted: computed(() => factor.value === null),
    zoomTo,
    zoomIn: (about?: { x: number; y: number }) => zoomTo(scale.value * STEP, about),
    zoomOut: (about?: { x: number; y: number }) => zoomTo(scale.value / STEP, about),
    fit: () => {
      factor.value = null
      shift.value = { x: 0, y: 0 }
    },
    /** Moves what is shown by px of the pane. */
    pan(dx: number, dy: number) {
      if (factor.value === null) zoomTo(scale.value)
      shift.value = { x: shift.value.x + dx, y: shift.value.y + dy }
    },
    /** Brings a place of the canvas to the middle. */
    show(rect: { x: number; y: number; width: number; height: number }) {
      if (factor.value === null) return
      const middle = { x: left.value + (rect.x + rect.width / 2) * scale.value, y: top.value + (rect.y + rect.height / 2) * scale.value }
      shift.value = { x: shift.value.x + width.value / 2 - middle.x, y: shift.value.y + height.value / 2 - middle.y }
    },
  }
}
export type PaneScale = ReturnType<typeof usePaneScale>
