import type { ChartElement } from '../../designs'
import type { ElementKind } from '../kinds'
import ChartDetails from './ChartDetails.vue'
import ChartPicker from './ChartPicker.vue'

export const chart: ElementKind = {
  kind: 'chart',
  key: 'g',
  Details: ChartDetails,
  begins: ChartPicker,
  figures: (one) => (one as ChartElement).type,
}
