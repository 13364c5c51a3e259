import type { Pool } from '../pool'
import type { Layer, Part } from '../sheet'

/** Where the file of a media id lies, and a small picture of a film until its frame is there; null where there is none. */
export type AddressOf = (mediaId: string) => { url: string; type: string; thumbnail?: string | null } | null

/**
 * Where it is drawn: on a player, in public, films are heard, and nothing is said of what is not there; at the desk what is not there is named;
 * a small picture takes stills of films, and loads none.
 */
export type Surface = 'player' | 'desk' | 'thumbnail'

/** What all that is drawn on one stage shares. */
export interface Tools {
  readonly surface: Surface
  readonly pool: Pool
  addressOf: AddressOf
  /** Set where the browser lets nothing be heard until somebody presses the page. */
  heldBack: boolean
  /** Something has come that changes what should be drawn. */
  wake(): void
}

/** An instant as one part sees it. */
export interface Moment {
  /** Unix ms. */
  at: number
  /** When the loops beside it began, or its item, Unix ms. */
  began: number
  /** ms since then; it stands still where the item is held at its end. */
  since: number
  /** ms into its item; null outside of all. */
  offset: number | null
  /** Whether time goes on. */
  runs: boolean
  /** Whether `since` goes on as well. */
  isHeld: boolean
  /** What it lies among. */
  layers: Layer[]
}

/** What stands for one part, inside its box. */
export interface Content<P extends Part = Part> {
  readonly element: HTMLElement
  /** Set where it is fitted into its box as only the core knows; all else fills it. */
  readonly isFitted?: boolean
  /** Set where nothing of it is ever drawn outside of its box, so that nothing has to be cut. */
  readonly staysWithin?: boolean
  /** All about it that does not depend on the instant. */
  look(part: P): void
  /** At an instant; returns the next one at which it has to be told again, Unix ms. */
  tell?(part: P, moment: Moment): number
  /** Whether what it shows is there to be seen. */
  isThere?(): boolean
  /** What is wrong with it, in words; null for nothing. */
  trouble?(): string | null
  settled?(): Promise<unknown>
  destroy?(): void
}

export type Kind<P extends Part> = (part: P, tools: Tools) => Content<P>
