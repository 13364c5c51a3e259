#!/usr/bin/env node
/*
 * Tells the desk what is really on the glass: takes a small picture out of the browser that plays, and sends it to where the page came from.
 * For Node 22, or Node 20 with --experimental-websocket. It needs nothing else, and nothing of the desk but this file.
 *
 *   chromium --remote-debugging-port=9222 --kiosk http://desk/play/ADDRESS/
 *   node glass-agent.mjs [--browser http://127.0.0.1:9222] [--once]
 *
 * The browser's port of remote debugging must be on loopback alone: whoever reaches it has the browser. A picture is taken without touching the
 * page: as a frame of a screencast, which the browser makes smaller by itself.
 */
const MOST_BYTES = 62_000
const WIDE_PX = 960
const QUALITIES = [70, 50, 30]
const PATIENCE_MS = 15_000
const AGAIN_S = 60

const options = process.argv.slice(2)
const browser = options.includes('--browser') ? options[options.indexOf('--browser') + 1] : 'http://127.0.0.1:9222'
const once = options.includes('--once')
const say = (words) => process.stderr.write(`${new Date().toISOString()} ${words}\n`)
const pause = (ms) => new Promise((done) => setTimeout(done, ms))

/** Pages of players in this browser: each output of a wall is a page of its own. */
async function pages() {
  const answer = await fetch(`${browser}/json`, { signal: AbortSignal.timeout(PATIENCE_MS) })
  const targets = await answer.json()
  return targets.flatMap(({ type, url, webSocketDebuggerUrl }) => {
    const at = URL.canParse(url) ? new URL(url) : null
    const secret = at && /^\/play\/([0-9a-f]{40})\/$/.exec(at.pathname)?.[1]
    return type === 'page' && secret
      ? [{ to: `${at.origin}/api/play/${secret}/glass?output=${Number(at.searchParams.get('output')) || 1}`, socket: webSocketDebuggerUrl }]
      : []
  })
}

/** One frame of a page, JPEG, and the Unix ms of this machine at which it was drawn. */
function frame(address, quality, width) {
  return new Promise((done, failed) => {
    const socket = new WebSocket(address)
    let asked = 0
    const ask = (method, params = {}) => socket.send(JSON.stringify({ id: ++asked, method, params }))
    const end = (go, what) => {
      clearTimeout(patience)
      socket.close()
      go(what)
    }
    const patience = setTimeout(() => end(failed, new Error('the browser shows no frame')), PATIENCE_MS)
    socket.onerror = () => end(failed, new Error('the browser does not answer'))
    socket.onopen = () => ask('Page.startScreencast', { format: 'jpeg', quality, maxWidth: width, maxHeight: width, everyNthFrame: 1 })
    socket.onmessage = ({ data }) => {
      const { method, params, error } = JSON.parse(data)
      if (error) end(failed, new Error(error.message))
      if (method !== 'Page.screencastFrame') return
      ask('Page.screencastFrameAck', { sessionId: params.sessionId })
      ask('Page.stopScreencast')
      end(done, { picture: Buffer.from(params.data, 'base64'), at: 1000 * (params.metadata.timestamp ?? Date.now() / 1000) })
    }
  })
}

async function small(address) {
  for (const width of [WIDE_PX, WIDE_PX / 2]) {
    for (const quality of QUALITIES) {
      const taken = await frame(address, quality, width)
      if (taken.picture.length <= MOST_BYTES) return taken
    }
  }
  throw new Error(`no picture of at most ${MOST_BYTES} bytes`)
}

/** Sends a picture of each page; after how many s the next are due. */
async function round() {
  const found = await pages()
  if (!found.length) throw new Error(`no page of a player in ${browser}`)
  let next = Infinity
  for (const { to, socket } of found) {
    const { picture, at } = await small(socket)
    // How old it is, whatever the clock of this machine says.
    const age = Math.max(0, Math.round(Date.now() - at))
    const answer = await fetch(`${to}&age_ms=${age}`, {
      method: 'POST',
      headers: { 'Content-Type': 'image/jpeg' },
      body: picture,
      signal: AbortSignal.timeout(PATIENCE_MS),
    })
    if (!answer.ok) throw new Error(`the desk answered ${answer.status}`)
    next = Math.min(next, Number((await answer.json()).next_s) || AGAIN_S)
  }
  return next
}

for (;;) {
  let next = AGAIN_S
  try {
    next = await round()
  } catch (e) {
    say(`${e.cause?.message ?? e.message}`)
    if (once) process.exit(1)
  }
  if (once) process.exit(0)
  await pause(next * 1000)
}
