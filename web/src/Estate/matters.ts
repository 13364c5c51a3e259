import { type Right, may } from '../ui/rights'
import type { Finding } from '../ui/shelf'

interface Lead {
  to: string
  link: string
  needs: Right
}
const playback = (state: string, link = 'See its player'): Lead => ({ to: `/playback?state=${state}`, link, needs: 'hand-over' })
const work = (link: string): Lead => ({ to: '/work', link, needs: 'hand-over' })
const handedOver = (finding: Finding, link: string): Lead => ({ to: handover(finding), link, needs: 'hand-over' })

/** Where each kind of finding of the estate leads; its elements are displays. */
const LEADS: Record<string, (finding: Finding) => Lead> = {
  'player.silent': () => playback('silent'),
  'player.troubled': () => playback('troubled'),
  'player.changing': () => playback('changing'),
  'display.unbound': ({ elements }) =>
    elements.length === 1 ? { to: `/displays?display=${elements[0]}`, link: 'Bind one', needs: 'survey' } : playback('unbound', 'See them'),
  'display.blank': ({ elements }) => ({
    to: elements.length === 1 ? `/handover?display=${elements[0]}` : '/handover',
    link: 'Hand something over',
    needs: 'hand-over',
  }),
  'release.ends': (finding) => handedOver(finding, 'Hand over'),
  'release.older': (finding) => handedOver(finding, 'See the difference'),
  'release.unplanned': (finding) => handedOver(finding, 'Hand over'),
  'schedule.nowhere': ({ measure }) => ({ to: `/schedules/${word(measure?.schedule)}`, link: 'Open it', needs: 'design' }),
  'filled.language': ({ measure }) => ({ to: `/filled/${word(measure?.filled)}`, link: 'Fill it in', needs: 'fill-in' }),
  'worker.silent': () => work('See the work'),
  'job.waits': () => work('See the work'),
  'job.failed': () => work('See why'),
  'chore.failed': () => work('See why'),
  ...Object.fromEntries(
    ['empty', 'late', 'failing', 'stale'].map((state) => [
      `source.${state}`,
      ({ measure }: Finding): Lead => ({ to: `/data/${word(measure?.source)}`, link: 'Look into it', needs: 'design' }),
    ]),
  ),
  'survey.found': ({ elements }) => ({
    to: elements.length === 1 ? `/displays/${elements[0]}` : '/displays',
    link: 'Look at the survey',
    needs: 'look',
  }),
}
const word = (value: unknown) => (typeof value === 'string' ? value : '')
/** Many displays with several things are not asked for one by one. */
const MOST_ASKED = 200
function handover({ elements, measure }: Finding): string {
  const [kind, id] = word(measure?.source).split(':')
  return `/handover?${[...(kind && id ? [`${kind}=${id}`] : []), ...elements.slice(0, MOST_ASKED).map((display) => `display=${display}`)].join('&')}`
}

/** Findings of these kinds, or of all but these, each with where it leads whoever may go there. */
export const matters = (findings: Finding[], isTold: (code: string) => boolean): Finding[] =>
  findings
    .filter((f) => isTold(f.code))
    .map((f) => {
      const lead = LEADS[f.code]?.(f)
      return lead && may(lead.needs) ? { ...f, to: lead.to, link: lead.link } : f
    })
