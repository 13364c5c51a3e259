import type { Output } from './output'

/** What whoever hangs the display wants to know at the glass itself. */
export interface Facts {
  player: string
  display: string
  /** Whether it plays, or what it waits for. */
  plays: string
  output: number | null
  outputs: Output[]
  /** One line each, the heading first. */
  lines: [string, string][]
  troubles: string[]
}

export interface Acts {
  facts(): Promise<Facts>
  /** Shows who each output is for a minute. */
  test(): void
}

/** It leaves by itself: a page of figures is not what the public wants to see. */
const LEAVES_MS = 60_000
/** A tone of 440 Hz, so long. */
const TONE_MS = 1000
/** A corner of the glass that is held so long opens it as well: there may be no keyboard. */
const HOLD_MS = 8000
const CORNER_PX = 60

/** The set-up page: over what plays, opened by F2 or by holding the upper left corner, gone by Escape or by itself. */
export class Setup {
  private panel: HTMLElement | null = null
  private leaving: ReturnType<typeof setTimeout> | undefined
  private holding: ReturnType<typeof setTimeout> | undefined
  private refreshing: ReturnType<typeof setInterval> | undefined

  constructor(private readonly acts: Acts) {}

  listen(): void {
    document.addEventListener('keydown', (e) => {
      if (e.key === 'F2') {
        e.preventDefault()
        if (this.panel) this.close()
        else void this.open()
      } else if (e.key === 'Escape') this.close()
      else this.stay()
    })
    document.addEventListener('pointerdown', (e) => {
      this.stay()
      if (e.clientX < CORNER_PX && e.clientY < CORNER_PX) this.holding = setTimeout(() => void this.open(), HOLD_MS)
    })
    for (const one of ['pointerup', 'pointercancel'] as const) document.addEventListener(one, () => clearTimeout(this.holding))
  }

  async open(): Promise<void> {
    if (this.panel) return
    this.panel = document.createElement('section')
    this.panel.className = 'setup'
    this.panel.setAttribute('role', 'dialog')
    this.panel.setAttribute('aria-label', 'Set up this player')
    document.body.append(this.panel)
    await this.draw()
    this.panel.querySelector<HTMLElement>('button')?.focus()
    this.refreshing = setInterval(() => void this.refresh(), 1000)
    this.stay()
  }

  close(): void {
    clearTimeout(this.leaving)
    clearInterval(this.refreshing)
    this.panel?.remove()
    this.panel = null
  }

  /** Whoever presses something is still there. */
  private stay(): void {
    clearTimeout(this.leaving)
    if (this.panel) this.leaving = setTimeout(() => this.close(), LEAVES_MS)
  }

  private async draw(): Promise<void> {
    const facts = await this.acts.facts()
    const panel = this.panel
    if (!panel) return
    const told = document.createElement('div')
    told.className = 'told'
    told.append(...lines(facts))
    const buttons = document.createElement('nav')
    buttons.append(
      button('Test picture', () => {
        this.acts.test()
        this.close()
      }),
      button('Tone', tone),
      button('Full screen', () => void document.documentElement.requestFullscreen?.().catch(() => undefined)),
      button('Leave', () => this.close()),
    )
    panel.replaceChildren(heading(`${facts.player} · ${facts.display}`), told, ...outputs(facts), buttons)
  }

  private async refresh(): Promise<void> {
    const facts = await this.acts.facts()
    this.panel?.querySelector('.told')?.replaceChildren(...lines(facts))
  }
}

function lines({ plays, lines, troubles }: Facts): HTMLElement[] {
  const list = document.createElement('dl')
  for (const [name, value] of [['Plays', plays] as [string, string], ...lines]) {
    const [term, told] = [document.createElement('dt'), document.createElement('dd')]
    term.textContent = name
    told.textContent = value
    list.append(term, told)
  }
  const wrong = troubles.map((one) => {
    const line = document.createElement('p')
    line.className = 'wrong'
    line.textContent = one
    return line
  })
  return [list, ...wrong]
}

/** Which output this window is; none where there is but one. */
function outputs({ output, outputs }: Facts): HTMLElement[] {
  if (outputs.length < 2) return []
  const list = document.createElement('nav')
  list.className = 'outputs'
  list.setAttribute('aria-label', 'Which output is this window?')
  for (const one of outputs) {
    const link = document.createElement('a')
    link.href = `?output=${one.output ?? 1}`
    link.textContent = String(one.output ?? 1)
    link.title = one.panels.join(', ')
    if (one.output === output) link.setAttribute('aria-current', 'true')
    list.append(link)
  }
  const question = document.createElement('p')
  question.textContent = 'Which output is this window?'
  return [question, list]
}

function heading(text: string): HTMLElement {
  const one = document.createElement('h1')
  one.textContent = text
  return one
}

function button(text: string, pressed: () => void): HTMLElement {
  const one = document.createElement('button')
  one.type = 'button'
  one.textContent = text
  one.addEventListener('click', pressed)
  return one
}

/** Whether anything is heard; pressing it also lets the browser play sound from now on. */
function tone(): void {
  const context = new AudioContext()
  const [source, volume] = [context.createOscillator(), context.createGain()]
  volume.gain.value = 0.2
  source.connect(volume).connect(context.destination)
  source.start()
  source.stop(context.currentTime + TONE_MS / 1000)
  source.addEventListener('ended', () => void context.close())
}
