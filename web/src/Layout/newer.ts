import type { Picture } from './style'

/** What taking over the newest revision of its template would do to something that is filled in. */
export interface Newer {
  /** Slots that are open no more. */
  left: string[]
  /** What is found then and is not by now, and the other way round. */
  worse: string[]
  better: string[]
  before: Picture | null
  after: Picture | null
}
