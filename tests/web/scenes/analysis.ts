import { ref, shallowRef } from 'vue'
import { mounted, pass, server, some } from '../scene'
import { useAnalysis } from '@/Layout/composer/analysis'
import type { LayoutDocument } from '@/Layout/designs'

/** What the core is asked of a layout that is being made (web/src/Layout/composer/analysis.ts). */

const named = (name: string) => some<LayoutDocument>({ name })

export async function newest() {
  const document = shallowRef(named('a'))
  const display = ref<string | null>(null)
  const asked = () => server.calls.filter((c) => c.path === 'analysis')
  server.ms = 200
  let away = false
  server.answer = ({ path, body }) => (away ? 'away' : { body: path === 'cures' ? { findings: [] } : { findings: [], said: body.document.name } })
  const moving = ref(false)
  const { it } = mounted(() => useAnalysis(document, ref(null), display, moving, () => Date.parse('2026-06-01T10:00:00Z')))
  const said = () => some<{ said: string }>(it.analysis.value).said
  await pass(50)
  for (const name of ['b', 'c', 'd']) {
    document.value = named(name)
    await pass(20)
  }
  await pass(1000)
  const seen = [asked().map((c) => c.body.document.name), said()]
  away = true
  display.value = 'd1'
  await pass(500)
  seen.push(it.trouble.value, said())
  away = false
  void it.ask()
  await pass(500)
  return [...seen, it.trouble.value]
}

export async function whileMoving() {
  const document = shallowRef(named('a'))
  const moving = ref(false)
  server.answer = ({ path, body: { document, light } }) =>
    path === 'cures'
      ? 'away'
      : { body: { findings: [], stops: document.name, ...(light ? {} : { run_sheet: `sheet of ${document.name}`, media: { of: document.name } }) } }
  const { it } = mounted(() => useAnalysis(document, ref(null), ref(null), moving, () => 0))
  await pass(50)
  const media = it.analysis.value!.media
  moving.value = true
  document.value = named('b')
  await pass(50)
  const during = it.analysis.value!
  moving.value = false
  await pass(200)
  const after = it.analysis.value!
  return [
    server.calls.filter((c) => c.path === 'analysis').map((c) => [c.body.light === true, c.body.document.name]),
    [during.stops, during.run_sheet, during.media === media ? 'same' : 'new'],
    [after.stops, after.run_sheet],
  ]
}

export async function cured() {
  const document = shallowRef(named('a'))
  const moving = ref(false)
  const found = (cures: Record<string, string> = {}) =>
    ['one', 'two'].map((message) => ({ code: 'x', message, elements: [], ...(cures[message] ? { fix: { label: cures[message] } } : {}) }))
  const cures: Record<string, Record<string, string>> = { a: { one: 'Wider' }, b: { two: 'Higher' } }
  server.ms = 100
  server.answer = ({ path, body }) => ({ body: { findings: path === 'cures' ? found(cures[body.document.name]) : found() } })
  const { it } = mounted(() => useAnalysis(document, ref(null), ref(null), moving, () => 0))
  const offered = () => it.analysis.value!.findings.map((f) => f.fix?.label ?? null)
  await pass(150)
  const seen = [offered()]
  await pass(100)
  seen.push(offered())
  document.value = named('b')
  await pass(230)
  seen.push(offered())
  await pass(100)
  seen.push(offered())
  moving.value = true
  document.value = named('c')
  await pass(400)
  return [...seen, server.calls.map((c) => `${c.path} ${c.body.document.name}`)]
}
