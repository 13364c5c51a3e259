import type { Batch as Told, Seen as ToldSeen } from '../formats/report'

/** What was really seen of one thing within a quarter of an hour; instants are Unix ms here. */
export type Seen = Omit<Required<ToldSeen>, 'quarter' | 'first' | 'last'> & { quarter: number; first: number; last: number }

export type Batch = Omit<Required<Told>, 'seen'> & { seen: Seen[] }

/** What has its turn: a part of what is drawn, or a state that was answered with. */
export interface Turn {
  part: { id: string; element: string; kind: string; item?: string | null; media?: { name: string } | null }
  /** When it began, Unix ms; null outside of all. */
  begun: number | null
  isThere: boolean
}

export const QUARTER_MS = 900_000
/** So much is kept until it arrives: twenty things for ten days. */
const MOST = 20_000
/** So many go on their way at once. */
const AT_ONCE = 200
/** Longer than this nobody looked: the page slept, or the machine did. */
const ASLEEP_MS = 3000

/** Counts what was drawn, by thing and quarter of an hour; what is counted is kept until it has arrived. */
export class Tally {
  private rows = new Map<string, Seen>()
  private batch: Batch | null = null
  private lost = 0
  private lookedAt = 0
  /** Turns that are on the glass now, by what has its turn and since when, and whether they were there to be seen at some time. */
  private standing = new Map<string, { wasThere: boolean; row: Seen }>()

  constructor(
    kept: string | null = null,
    private readonly newId: () => string = () => crypto.randomUUID(),
    private readonly most = MOST,
  ) {
    try {
      const { rows, batch, lost } = JSON.parse(kept ?? '{}') as { rows?: Seen[]; batch?: Batch | null; lost?: number }
      for (const row of rows ?? []) this.rows.set(`${row.id} ${row.quarter}`, row)
      this.batch = batch ?? null
      this.lost = lost ?? 0
    } catch {
      // What was kept was torn: it is counted anew from here.
    }
  }

  /** @param at instant that was drawn, Unix ms */
  look(at: number, standing: Turn[]): void {
    const passed = at - this.lookedAt
    const gone = passed > 0 && passed < ASLEEP_MS ? passed : 0
    this.lookedAt = at
    const now: typeof this.standing = new Map()
    for (const { part, begun, isThere } of standing) {
      const media = part.media ?? null
      if (!media && !part.item) continue
      const { id } = part
      const turn = `${id} ${part.kind} ${begun}`
      const row = this.row(id, part.element, part.item ?? null, media?.name ?? null, at)
      const one = this.standing.get(turn) ?? { wasThere: false, row }
      if (isThere) {
        // Counted once it is there, and where its turn began to be.
        if (!one.wasThere) row.times++
        one.wasThere = true
        row.ms += gone
      } else row.missed_ms += gone
      row.last = at
      one.row = row
      now.set(turn, one)
    }
    for (const [turn, one] of this.standing) if (now.get(turn) !== one && !one.wasThere) one.row.missed++
    this.standing = now
  }

  private row(id: string, element: string, item: string | null, media: string | null, at: number): Seen {
    const quarter = Math.floor(at / QUARTER_MS) * QUARTER_MS
    const key = `${id} ${quarter}`
    let row = this.rows.get(key)
    if (!row) {
      this.rows.set(key, (row = { id, element, item, media, quarter, first: at, last: at, times: 0, ms: 0, missed: 0, missed_ms: 0 }))
      if (this.rows.size > this.most) {
        this.rows.delete(this.rows.keys().next().value!)
        this.lost++
      }
    }
    return row
  }

  /** What goes on its way next; the same until it has arrived. */
  next(): Batch | null {
    if (this.batch === null) {
      const seen: Seen[] = []
      for (const [key, row] of this.rows) {
        if (seen.length === AT_ONCE) break
        // A turn that has not shown yet whether it comes to be seen says nothing.
        if (row.times + row.ms + row.missed + row.missed_ms === 0) continue
        seen.push({ ...row, ms: Math.round(row.ms), missed_ms: Math.round(row.missed_ms) })
        this.rows.delete(key)
      }
      if (seen.length === 0 && this.lost === 0) return null
      this.batch = { id: this.newId(), seen, lost: this.lost }
      this.lost = 0
      for (const one of this.standing.values()) one.row = this.row(one.row.id, one.row.element, one.row.item, one.row.media, this.lookedAt)
    }
    return this.batch
  }

  arrived(id: string): void {
    if (this.batch?.id === id) this.batch = null
  }

  get hasMore(): boolean {
    return this.rows.size >= AT_ONCE
  }

  /** All of it in one text, to be kept over a start. */
  kept(): string {
    return JSON.stringify({ rows: [...this.rows.values()], batch: this.batch, lost: this.lost })
  }
}

/** As it is said (docs/formats/report.schema.json). */
export const told = ({ id, seen, lost }: Batch) => ({
  id,
  lost,
  seen: seen.map((one) => ({ ...one, quarter: instant(one.quarter), first: instant(one.first), last: instant(one.last) })),
})

const instant = (ms: number) => new Date(ms).toISOString()
