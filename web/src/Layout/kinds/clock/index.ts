import type { ElementKind } from '../kinds'
import ClockDetails from './ClockDetails.vue'

export const clock: ElementKind = { kind: 'clock', key: 'k', Details: ClockDetails }
