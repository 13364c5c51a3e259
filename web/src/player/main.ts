import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import { Player } from './effects'
import keeperUrl from './keeper.ts?worker&url'
import { pair } from './pairing'
import './player.scss'

/**
 * The player page. At /player it shows a code until somebody binds it; at /play/SECRET/ it plays.
 *
 * A player with several outputs has a page for each: `?output=2`. Each is drawn turned where its panel is turned.
 * `#at=2026-06-01T10:00:00Z` makes it stand still at an instant.
 */
declare const __BUILD__: string
const host = document.getElementById('player')!
const secret = /^\/play\/([0-9a-f]{40})\/$/.exec(location.pathname)?.[1]
if (secret) {
  const player = new Player(host, secret, __BUILD__, keeperUrl)
  Object.assign(window, { upperPanePlayer: player })
  void player.start()
} else void pair(host)
