import type { ChartElement } from '../../designs'

export const TYPES: Record<ChartElement['type'], string> = { columns: 'columns', bars: 'bars', line: 'a line', gauge: 'a gauge' }
