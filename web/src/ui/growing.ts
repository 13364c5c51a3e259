import { useElementVisibility } from '@vueuse/core'
import { type MaybeRefOrGetter, computed, ref, toValue, watch } from 'vue'

/** The first of a long list; more as soon as its end, the element that `end` is bound to, comes into view. */
export function useGrowing<T>(list: MaybeRefOrGetter<T[]>, step = 60) {
  const count = ref(step)
  const end = ref<HTMLElement | null>(null)
  const inView = useElementVisibility(end, { rootMargin: '600px' })
  const shown = computed(() => toValue(list).slice(0, count.value))
  const left = computed(() => toValue(list).length - shown.value.length)
  const grow = () => inView.value && left.value > 0 && (count.value += step)
  // Once more after what was added is drawn: the end may still be in view.
  watch([inView, shown], () => requestAnimationFrame(grow), { flush: 'post' })

  return { shown, left, end }
}

/** Displays in their places, as many as are shown; `all` are those of the place, also where not all of them are shown yet. */
export function useGrowingPlaces<P extends { displays: D[] }, D = P['displays'][number]>(
  places: MaybeRefOrGetter<P[]>,
  fits: (display: D) => boolean = () => true,
  step = 60,
) {
  const found = computed(() => toValue(places).map((p) => ({ ...p, all: p.displays.filter(fits) })))
  const { shown: first, left, end } = useGrowing(() => found.value.flatMap((p) => p.all), step)
  const shown = computed(() => {
    const those = new Set(first.value)
    return found.value.map((p) => ({ ...p, displays: p.all.filter((d) => those.has(d)) })).filter((p) => p.displays.length > 0)
  })

  return { shown, left, end }
}
