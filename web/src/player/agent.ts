import type { Raw } from './answering'

/** Where the agent of this machine speaks (signal-agent.mjs): on loopback, always at the same port. */
export const ADDRESS = 'ws://127.0.0.1:47400/signals'
const AGAIN_MS = 2000

/** Hears what sensors say by the agent on this machine; where none is, it is tried again. */
export class Agent {
  private socket: WebSocket | null = null

  constructor(private readonly heard: (said: Raw[]) => void) {}

  /** @param isNeeded whether anything that is shown answers to anybody */
  listen(isNeeded: () => boolean): void {
    setInterval(() => {
      if (isNeeded() && !this.socket) this.open()
      else if (!isNeeded()) this.socket?.close()
    }, AGAIN_MS)
  }

  /** Told to whoever else listens on this machine, as the Bench does. */
  tell(told: object): void {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(told))
  }

  private open(): void {
    const socket = (this.socket = new WebSocket(`${ADDRESS}?player`))
    socket.onclose = () => (this.socket = null)
    socket.onmessage = ({ data }) => {
      try {
        const told: unknown = JSON.parse(String(data))
        if (Array.isArray(told)) this.heard(told.filter((one): one is Raw => typeof one === 'object' && one !== null))
      } catch {
        // What is no JSON says nothing.
      }
    }
  }
}
