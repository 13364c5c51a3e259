#!/usr/bin/env node
/*
 * Hands what sensors say to the pages of the player on this machine: no server in the way, so that a screen answers at once, and also without one.
 * For Node 20 or later; it needs nothing else, and nothing of the desk but this file.
 *
 *   node signal-agent.mjs --page http://desk [--page ...] [--port 47400] [--neighbour http://192.168.1.12:47400 ...]
 *
 * A sensor sends what it says by `POST http://127.0.0.1:47400/signal`: one entry or a list of them, `{"sensor": "s1", "mm": 830}`. Pages of players listen at the
 * WebSocket `/signals`; only pages that come from where --page says are let in. What comes from a neighbour is handed on to no other. What a page itself says there,
 * an object, is handed to the others: so a player tells what it answered.
 */
import { createHash } from 'node:crypto'
import { createServer } from 'node:http'

const MOST_BYTES = 64_000
/** A page that does not take what it is sent is let go: it comes again. */
const MOST_WAITING = 1_000_000
/** A neighbour that is away is not waited for. */
const PATIENCE_MS = 500

const all = (name) => process.argv.flatMap((one, n) => (one === `--${name}` && process.argv[n + 1] ? [process.argv[n + 1]] : []))
const port = Number(all('port')[0] ?? 47400)
const origins = all('page').map((one) => new URL(one).origin)
const neighbours = all('neighbour')
const say = (words) => process.stderr.write(`${new Date().toISOString()} ${words}\n`)
if (origins.length === 0) {
  say('--page says from where the page of the player comes: --page http://desk')
  process.exit(2)
}

const pages = new Set()
/** Those that play. */
const players = new Set()

/** One text as a frame of RFC 6455, 5.2; a server masks nothing. */
function framed(text) {
  const bytes = Buffer.from(text)
  const head = bytes.length < 126 ? [0x81, bytes.length] : bytes.length < 65_536 ? [0x81, 126, bytes.length >> 8, bytes.length & 255] : null
  return head ? Buffer.concat([Buffer.from(head), bytes]) : null
}

/** @param from the page that says it, which knows it already */
function hand(told, from = null) {
  const frame = framed(JSON.stringify(told))
  if (!frame) return
  for (const page of pages) {
    if (page === from) continue
    if (page.writableLength > MOST_WAITING) page.destroy()
    else page.write(frame)
  }
}

/**
 * What a page says, frame by frame (RFC 6455, 5.2 and 5.3: a page masks what it sends, and says what is short in one frame).
 * @returns what of the bytes is not whole yet; null where the page is to be let go
 */
function heard(page, bytes) {
  while (bytes.length >= 6) {
    const short = bytes[1] & 127
    const head = short === 126 ? 8 : 6
    if (short === 127 || !(bytes[1] & 128)) return null
    if (bytes.length < head) break
    const length = short === 126 ? bytes.readUInt16BE(2) : short
    if (bytes.length < head + length) break
    const [kind, mask] = [bytes[0] & 15, bytes.subarray(head - 4, head)]
    const said = Buffer.from(bytes.subarray(head, head + length).map((one, n) => one ^ mask[n & 3]))
    bytes = bytes.subarray(head + length)
    if (kind === 8) return null
    if (kind !== 1) continue
    try {
      const told = JSON.parse(said.toString('utf8'))
      // A list would be what sensors say: that is told by POST /signal alone.
      if (typeof told === 'object' && told !== null && !Array.isArray(told)) hand(told, page)
    } catch {
      // What is no JSON says nothing.
    }
  }
  return bytes
}

/** What is no entry is told to whoever sent it, and goes nowhere. */
function entriesOf(text) {
  const told = JSON.parse(text)
  const entries = Array.isArray(told) ? told : [told]
  const wrong = entries.findIndex((one) => typeof one !== 'object' || one === null || Array.isArray(one) || 'at' in one)
  if (wrong >= 0) throw new Error(`entry ${wrong} is an object without "at": the agent says when it came`)
  const at = Date.now()
  return entries.map((one) => ({ ...one, at }))
}

const pathOf = ({ url }) => (url ?? '').split('?')[0]

const server = createServer((request, answer) => {
  const { origin } = request.headers
  const isOwn = origins.includes(origin)
  // A page that is let in may read what is answered (Fetch standard, 3.2), also where browsers ask before they speak to this machine.
  const allowed = isOwn
    ? { 'Access-Control-Allow-Origin': origin, 'Access-Control-Allow-Headers': 'Content-Type', 'Access-Control-Allow-Private-Network': 'true', Vary: 'Origin' }
    : {}
  const end = (status, words) => {
    answer.writeHead(status, { 'Content-Type': 'application/json', ...allowed })
    answer.end(words === undefined ? undefined : JSON.stringify({ error: words }))
  }
  if (request.method === 'OPTIONS' && isOwn) return end(204)
  if (pathOf(request) !== '/signal' || request.method !== 'POST')
    return end(404, 'POST /signal takes what sensors say; pages listen at the WebSocket /signals')
  // A page of somebody else's in a browser of this machine may not play a sensor.
  if (origin !== undefined && !isOwn) return end(403, `a page of ${origin} is none of this player's`)
  const parts = []
  let size = 0
  request.on('data', (part) => {
    size += part.length
    if (size <= MOST_BYTES) parts.push(part)
  })
  request.on('end', () => {
    if (size > MOST_BYTES) return end(413, `${size} bytes at once; ${MOST_BYTES} are the most`)
    let entries
    try {
      entries = entriesOf(Buffer.concat(parts).toString('utf8'))
    } catch (e) {
      return end(422, e.message)
    }
    hand(entries)
    end(204)
    if (request.headers['x-from-neighbour']) return
    for (const neighbour of neighbours) {
      fetch(`${neighbour}/signal`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', 'X-From-Neighbour': '1' },
        body: Buffer.concat(parts),
        signal: AbortSignal.timeout(PATIENCE_MS),
      }).catch(() => say(`the neighbour ${neighbour} does not answer`))
    }
  })
})
server.on('upgrade', (request, socket) => {
  const key = request.headers['sec-websocket-key']
  const isPage = pathOf(request) === '/signals' && origins.includes(request.headers.origin)
  if (!key || !isPage) return socket.end('HTTP/1.1 403 Forbidden\r\n\r\n')
  const accept = createHash('sha1').update(`${key}258EAFA5-E914-47DA-95CA-C5AB0DC85B11`).digest('base64')
  socket.write(`HTTP/1.1 101 Switching Protocols\r\nUpgrade: websocket\r\nConnection: Upgrade\r\nSec-WebSocket-Accept: ${accept}\r\n\r\n`)
  socket.setNoDelay(true)
  const isPlayer = new URL(request.url, 'http://agent').searchParams.has('player')
  pages.add(socket)
  if (isPlayer) players.add(socket)
  hand({ players: players.size })
  const gone = () => {
    socket.destroy()
    if (!pages.delete(socket)) return
    if (players.delete(socket)) hand({ players: players.size })
  }
  let waiting = Buffer.alloc(0)
  socket.on('data', (bytes) => {
    const left = heard(socket, Buffer.concat([waiting, bytes]))
    if (left === null) gone()
    else waiting = left
  })
  for (const one of ['close', 'error', 'end']) socket.on(one, gone)
})
server.listen(port, '127.0.0.1', () => say(`what sensors say at http://127.0.0.1:${port}/signal goes to the pages of ${origins.join(', ')}`))
