import type { Finding } from '../ui/shelf'

/** Where each kind of finding of the estate leads; its elements are displays. */
const LEADS: Record<string, (finding: Finding) => { to: string; link: string }> = {
  'player.silent': () => ({ to: '/playback?state=silent', link: 'See its player' }),
  'player.troubled': () => ({ to: '/playback?state=troubled', link: 'See its player' }),
  'player.changing': () => ({ to: '/playback?state=changing', link: 'See its player' }),
  'display.unbound': ({ elements }) =>
    elements.length === 1 ? { to: `/displays?display=${elements[0]}`, link: 'Bind one' } : { to: '/playback?state=unbound', link: 'See them' },
  'display.blank': ({ elements }) => ({ to: elements.length === 1 ? `/handover?display=${elements[0]}` : '/handover', link: 'Hand something over' }),
  'release.ends': (finding) => ({ to: handover(finding), link: 'Hand over' }),
  'release.older': (finding) => ({ to: handover(finding), link: 'See the difference' }),
  'release.unplanned': (finding) => ({ to: handover(finding), link: 'Hand over' }),
  'schedule.nowhere': ({ measure }) => ({ to: `/schedules/${word(measure?.schedule)}`, link: 'Open it' }),
  'filled.language': ({ measure }) => ({ to: `/filled/${word(measure?.filled)}`, link: 'Fill it in' }),
  'worker.silent': () => ({ to: '/work', link: 'See the work' }),
  'job.waits': () => ({ to: '/work', link: 'See the work' }),
  'job.failed': () => ({ to: '/work', link: 'See why' }),
  'chore.failed': () => ({ to: '/work', link: 'See why' }),
  ...Object.fromEntries(
    ['empty', 'late', 'failing', 'stale'].map((state) => [
      `source.${state}`,
      ({ measure }: Finding) => ({ to: `/data/${word(measure?.source)}`, link: 'Look into it' }),
    ]),
  ),
  'survey.found': ({ elements }) => ({ to: elements.length === 1 ? `/displays/${elements[0]}` : '/displays', link: 'Look at the survey' }),
}
const word = (value: unknown) => (typeof value === 'string' ? value : '')
/** Many displays with several things are not asked for one by one. */
const MOST_ASKED = 200
function handover({ elements, measure }: Finding): string {
  const [kind, id] = word(measure?.source).split(':')
  return `/handover?${[...(kind && id ? [`${kind}=${id}`] : []), ...elements.slice(0, MOST_ASKED).map((display) => `display=${display}`)].join('&')}`
}

/** Findings of these kinds, or of all but these, each with where it leads. */
export const matters = (findings: Finding[], isTold: (code: string) => boolean): Finding[] =>
  findings.filter((f) => isTold(f.code)).map((f) => ({ ...f, ...LEADS[f.code]?.(f) }))
