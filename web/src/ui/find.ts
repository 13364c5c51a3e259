/** Something that can be found by its words: an object of the estate or of the work, a station, or an action of what is open. */
export interface Findable {
  kind: string
  name: string
  more?: string
  /** Where it leads, or what it does. */
  to?: string
  act?: () => void
}

/**
 * Those whose words begin with what is typed, in any order; a name that begins with it first, then in the order given.
 *
 * @param most how many at the most
 */
export function find(all: Findable[], typed: string, most = 12): Findable[] {
  const words = plain(typed).split(/\s+/).filter(Boolean)
  if (words.length === 0) return all.slice(0, most)
  const scored: { one: Findable; score: number; at: number }[] = []
  all.forEach((one, at) => {
    const name = plain(one.name)
    const text = ` ${name} ${plain(one.more ?? '')} ${plain(one.kind)}`.replace(/[^\p{L}\p{N}]+/gu, ' ')
    if (!words.every((word) => text.includes(` ${word}`) || name.includes(word))) return
    const whole = words.every((word) => ` ${name}`.includes(` ${word}`))
    const score = name === words.join(' ') ? 0 : whole && name.startsWith(words[0]!) ? 1 : whole ? 2 : 3
    scored.push({ one, score, at })
  })
  return scored
    .sort((a, b) => a.score - b.score || a.at - b.at)
    .slice(0, most)
    .map(({ one }) => one)
}

/** Without capitals and accents. */
const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
