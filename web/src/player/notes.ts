import type { Output } from './output'

/** What the page says where it has nothing to play. */
export function say(host: HTMLElement, title: string, text: string, code = ''): void {
  const note = document.createElement('div')
  note.className = 'note'
  const heading = document.createElement('h1')
  heading.textContent = title
  const body = document.createElement('p')
  body.textContent = text
  note.append(heading)
  if (code) {
    const big = document.createElement('p')
    big.className = 'code'
    big.textContent = `${code.slice(0, 3)} ${code.slice(3)}`
    big.dataset.code = code
    note.append(big)
  }
  note.append(body)
  host.replaceChildren(note)
}

/** This player has several outputs, each with a page of its own: which one is this window? */
export function choose(host: HTMLElement, outputs: Output[], asked: number | null): void {
  say(
    host,
    'Which output is this window?',
    asked === null ? 'Open one window for each output, and press its number.' : `There is no output ${asked} here.`,
  )
  const list = document.createElement('nav')
  list.className = 'outputs'
  for (const o of outputs) {
    const link = document.createElement('a')
    link.href = `?output=${o.output ?? 1}`
    link.textContent = String(o.output ?? 1)
    link.title = o.panels.join(', ')
    list.append(link)
  }
  host.querySelector('.note')?.append(list)
}
