<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** Every way in which the composer changes a document, and the hand of the tide table (web/src/Layout/composer). */
final class ComposerHandsTest extends TestCase
{
    private const OPEN = <<<'TS'
        import { computed, ref, shallowRef } from 'vue'
        import { makeComposer } from '@/Layout/composer/composer'
        const box = (x: number, y: number) => ({ x, y, width: 100, height: 50 })
        const zone = (id: string, x = 0, more = {}) => ({ id, kind: 'zone', rect: box(x, 0), playlist: { items: [] }, ...more })
        const text = (id: string, x = 0) => ({ id, kind: 'text', rect: box(x, 0), text: 'x', style: { size_px: 20 } })
        // What the core does to a document, as far as a test says: `acts` are what it was asked for.
        const acts: any[] = []
        let does = (document: any, _act: any): any => ({ document })
        server.answer = ({ path, body }) => {
          if (path !== 'arrangement') return { status: 404, body: {} }
          acts.push(body.act)
          return { body: { variant: body.variant, said: [], ...does(body.document, body.act) } }
        }
        const composing = (...elements: any[]) => {
          const document = shallowRef<any>({ name: 'x', canvas: { width: 800, height: 600 }, elements })
          const variant = ref<string | null>(null)
          const gestures: unknown[] = []
          const change = (next: any, gesture?: string) => ((document.value = next), gestures.push(gesture ?? null))
          const { it: composer } = mounted(() => makeComposer(document, variant, change, () => {}))
          return {
            composer,
            document,
            variant,
            gestures,
            ids: () => document.value.elements.map((e: any) => e.id),
            chosen: () => [...composer.chosen.value],
            at: () => composer.elements.value.map((e: any) => [e.rect.x, e.rect.y]),
          }
        }

        TS;

    /** What is begun, put in, taken out and stacked is the core's to do (ActsTest): it is asked in turn, each with what is chosen by then. */
    public function testTheCoreIsAskedInTurn(): void
    {
        self::assertSame([
            [
                ['do' => 'begin', 'kind' => 'text', 'rect' => ['x' => 5, 'y' => 0, 'width' => 100, 'height' => 50]],
                ['do' => 'insert', 'elements' => ['new'], 'dx' => 20, 'dy' => 20],
                ['do' => 'restack', 'elements' => ['copy'], 'by' => 10_000],
                ['do' => 'remove', 'elements' => ['copy']],
            ],
            'choose', [], ['a', 'new', 'copy'], ['What is locked stays.'], 3,
        ], self::play(<<<'TS'
            const { composer, gestures, ids, chosen } = composing(zone('a'))
            does = (document, act) => ({
              begin: { document: { ...document, elements: [...document.elements, text('new')] }, chosen: ['new'] },
              insert: { document: { ...document, elements: [...document.elements, text('copy')] }, chosen: ['copy'] },
              restack: { document: { ...document, name: 'stacked' } },
              remove: { document, chosen: [], said: ['What is locked stays.'] },
            })[act.do as string]
            server.ms = 30
            composer.tool.value = 'text'
            void composer.add('text', box(5, 0))
            composer.duplicate()
            composer.restack(Infinity)
            composer.remove()
            const tool = composer.tool.value
            await pass(500)
            say([acts.map((a) => (a.elements ? { ...a, elements: a.elements.map((e: any) => e.id ?? e) } : a)), tool, chosen(), ids(), composer.notice.value?.said, gestures.length])
            TS));
    }

    public function testWhatIsCopiedIsPastedInAnotherLayoutAndAgainBesideItself(): void
    {
        self::assertSame([[['a', 5, 0], ['a', 5, 20]], 0, 0], self::play(<<<'TS'
            const one = composing(zone('a', 5), zone('b', 9))
            one.composer.choose(['a'])
            one.composer.copy()
            const other = composing(zone('x', 300))
            other.composer.paste()
            other.composer.paste()
            await pass(50)
            const asked = acts.map((a) => [a.elements[0].id, a.elements[0].rect.x, a.dx])
            acts.length = 0
            storage.kept.clear()
            const empty = composing(zone('x'))
            empty.composer.paste()
            await pass(50)
            const nothing = acts.length
            empty.composer.copy()
            empty.composer.paste()
            await pass(50)
            say([asked, nothing, acts.length])
            TS));
    }

    /** A hand that types while the core works loses nothing: it is asked again with what stands there then. */
    public function testWhatAHandDoesMeanwhileIsKept(): void
    {
        self::assertSame([['a', 'b'], 'typed', 2, 'Nothing here.', true], self::play(<<<'TS'
            const { composer, document, ids } = composing(text('a'))
            does = (document) => ({ document: { ...document, elements: [...document.elements, text('b')] } })
            server.ms = 100
            const done = composer.add('text', box(0, 0))
            await pass(50)
            composer.retext('a', 'typed')
            await pass(500)
            await done
            const asked = acts.length
            server.answer = () => ({ status: 422, body: { error: { code: 'zone.unknown', message: 'Nothing here.' } } })
            composer.choose(['a'])
            composer.remove()
            await pass(500)
            say([ids(), document.value.elements[0].text, asked, composer.notice.value?.said[0], composer.notice.value?.wrong])
            TS));
    }

    public function testWhatBelongsTogetherIsChosenAndMovedTogether(): void
    {
        self::assertSame([['a', 'b'], ['a', 'b'], [[10, 0], [110, 0], [300, 0]], ['group1', 'group1', null], [null, null, null]], self::play(<<<'TS'
            const { composer, document, chosen, at } = composing(zone('a'), text('b', 100), zone('c', 300))
            const groups = () => document.value.elements.map((e: any) => e.group ?? null)
            composer.choose(['a', 'b'])
            composer.group()
            composer.chooseWhole(['b'])
            const whole = chosen()
            composer.choose([])
            composer.chooseWhole(['a'])
            const again = chosen()
            composer.nudge(10, 0)
            const together = groups()
            composer.ungroup()
            say([whole, again, at(), together, groups()])
            TS));
    }

    public function testWhatIsLockedStaysWhereItIs(): void
    {
        self::assertSame([[[0, 0], [101, 0]], [true, null], [null, true]], self::play(<<<'TS'
            const { composer, document, at } = composing(zone('a'), zone('b', 100))
            composer.choose(['a'])
            composer.toggle('locked')
            const locked = document.value.elements.map((e: any) => e.locked ?? null)
            composer.choose(['a', 'b'])
            composer.nudge(1, 0)
            composer.place(new Map([['a', box(7, 7)]]))
            const places = at()
            composer.toggle('locked')
            composer.toggle('locked')
            composer.choose(['b'])
            composer.toggle('locked')
            say([places, locked, document.value.elements.map((e: any) => e.locked ?? null)])
            TS));
    }

    public function testWhatIsNudgedTogetherIsOneStepOfUndo(): void
    {
        self::assertSame([[[0, 0], [11, -3], [21, -3]], ['nudge b,c', 'nudge b,c'], 2], self::play(<<<'TS'
            const { composer, gestures, at } = composing(zone('a'), zone('b', 10), zone('c', 20))
            composer.nudge(5, 5)
            composer.choose(['b', 'c'])
            composer.nudge(1, 0)
            composer.nudge(0, -3)
            say([at(), gestures, gestures.length])
            TS));
    }

    public function testAPlaceAnEditAndASettingTouchOnlyWhatTheyName(): void
    {
        self::assertSame([[[7, 8], [10, 0]], 'words', 'x', 640, 'drag'], self::play(<<<'TS'
            const { composer, document, gestures, at } = composing(zone('a'), text('b', 10))
            composer.place(new Map([['a', box(7, 8)], ['gone', box(1, 1)]]), 'drag')
            composer.edit('b', { text: 'words' } as any)
            composer.set({ canvas: { width: 640, height: 480 } })
            say([at(), document.value.elements[1].text, document.value.name, document.value.canvas.width, gestures[0]])
            TS));
    }

    public function testAnEmptyDocumentHasNothingToChoose(): void
    {
        self::assertSame([[], 0, []], self::play(<<<'TS'
            const { composer, gestures, ids } = composing()
            composer.remove()
            composer.duplicate()
            composer.nudge(1, 1)
            composer.choose(composer.elements.value.map((e) => e.id))
            await pass(50)
            say([ids(), gestures.length + acts.length, [...composer.chosen.value]])
            TS));
    }

    public function testTheHandKnowsWhatIsDueAndWhenAnItemComesNext(): void
    {
        // Two items take their turn, the third is off; the second fades in over 1 s.
        self::assertSame([['z' => 'a'], ['z' => 'b'], [20_000, 11_000, 11_000, 31_000, null, null], []], self::play(<<<'TS'
            const { dueItems, nextDue } = await import('@/Layout/composer/hand')
            const sheet: any = {
              anchor_ms: 0,
              layers: [
                { part: { element: 'words' } },
                {
                  zone: 'z',
                  period_ms: 20000,
                  segments: [
                    { start_ms: 0, length_ms: 10000, fade_ms: 0, scene: 0 },
                    { start_ms: 10000, length_ms: 10000, fade_ms: 1000, scene: 1 },
                  ],
                },
              ],
            }
            const seen: any = { run_sheet: sheet, playing: { z: { scenes: [{ id: 'a' }, { id: 'b' }] } } }
            const next = (zoneId: string, item: string, at: number) => nextDue(seen, zoneId, item, at)
            say([
              dueItems(seen, 9999),
              dueItems(seen, 10000),
              [next('z', 'a', 15000), next('z', 'b', 0), next('z', 'b', 10500), next('z', 'b', 20000), next('z', 'off', 0), next('gone', 'a', 0)],
              dueItems({ run_sheet: { anchor_ms: 0, layers: [{ zone: 'z', period_ms: 0, segments: [], scenes: [] }] }, playing: {} } as any, 5),
            ])
            TS));
    }

    public function testTheHandStopsTheClockAndStepsFromChangeToChange(): void
    {
        self::assertSame([true, false, 10_000, 0, 20_000, 10_000, 'b'], self::play(<<<'TS'
            globalThis.requestAnimationFrame = () => 0
            const { makeHand } = await import('@/Layout/composer/hand')
            const analysis = shallowRef<any>(null)
            const { it: hand } = mounted(() => makeHand(analysis))
            const seen: unknown[] = [hand.running.value]
            hand.toItem('z', 'b')
            hand.toChange(true)
            hand.to(3000)
            seen.push(hand.running.value)
            analysis.value = {
              run_sheet: {
                anchor_ms: 0,
                layers: [{ zone: 'z', period_ms: 20000, segments: [0, 1].map((n) => ({ start_ms: n * 10000, length_ms: 10000, fade_ms: 0, scene: n })), scenes: [] }],
              },
              playing: { z: { scenes: [{ id: 'a' }, { id: 'b' }] } },
            }
            for (const act of [() => hand.toChange(true), () => hand.toChange(false), () => (hand.toChange(true), hand.toChange(true)), () => hand.toItem('z', 'b')]) {
              if (act.toString().includes('toItem')) hand.to(500)
              act()
              seen.push(hand.at.value)
            }
            say([...seen, hand.due.value.z])
            TS));
    }

    public function testTheNewestAnswerOfTheCoreHolds(): void
    {
        self::assertSame([['a', 'd'], 'd', 'The server does not answer. What you changed is kept in this window.', 'd', ''], self::play(<<<'TS'
            const { useAnalysis } = await import('@/Layout/composer/analysis')
            const document = ref<any>({ name: 'a' })
            const display = ref<string | null>(null)
            const asked = () => server.calls.filter((c) => c.path === 'analysis')
            server.ms = 200
            let away = false
            server.answer = ({ path, body }) => (away ? 'away' : { body: path === 'cures' ? { findings: [] } : { findings: [], said: body.document.name } })
            const moving = ref(false)
            const { it } = mounted(() => useAnalysis(document, ref(null), display, moving, () => Date.parse('2026-06-01T10:00:00Z')))
            await pass(50)
            for (const name of ['b', 'c', 'd']) {
              document.value = { name }
              await pass(20)
            }
            await pass(1000)
            const seen = [asked().map((c) => c.body.document.name), (it.analysis.value as any).said]
            away = true
            display.value = 'd1'
            await pass(500)
            seen.push(it.trouble.value, (it.analysis.value as any).said)
            away = false
            void it.ask()
            await pass(500)
            say([...seen, it.trouble.value])
            TS));
    }

    public function testWhileAHandMovesThingsOnlyWhatChangesIsAskedFor(): void
    {
        self::assertSame([[[false, 'a'], [true, 'b'], [false, 'b']], ['b', 'sheet of a', 'same'], ['b', 'sheet of b']], self::play(<<<'TS'
            const { useAnalysis } = await import('@/Layout/composer/analysis')
            const document = ref<any>({ name: 'a' })
            const moving = ref(false)
            server.answer = ({ path, body: { document, light } }) =>
              path === 'cures' ? 'away' : { body: { findings: [], stops: document.name, ...(light ? {} : { run_sheet: `sheet of ${document.name}`, media: { of: document.name } }) } }
            const { it } = mounted(() => useAnalysis(document, ref(null), ref(null), moving, () => 0))
            await pass(50)
            const media = (it.analysis.value as any).media
            moving.value = true
            document.value = { name: 'b' }
            await pass(50)
            const during: any = it.analysis.value
            moving.value = false
            await pass(200)
            const after: any = it.analysis.value
            say([
              server.calls.filter((c) => c.path === 'analysis').map((c) => [c.body.light === true, c.body.document.name]),
              [during.stops, during.run_sheet, during.media === media ? 'same' : 'new'],
              [after.stops, after.run_sheet],
            ])
            TS));
    }

    /** Cures are tried apart: they come a little later, and stay beside what is still found until they have been tried anew. */
    public function testCuresAreAskedForOnceTheHandRests(): void
    {
        self::assertSame([[null, null], ['Wider', null], ['Wider', null], [null, 'Higher'], ['analysis a', 'cures a', 'analysis b', 'cures b', 'analysis c']], self::play(<<<'TS'
            const { useAnalysis } = await import('@/Layout/composer/analysis')
            const document = ref<any>({ name: 'a' })
            const moving = ref(false)
            const found = (cures: Record<string, string> = {}) => ['one', 'two'].map((message) => ({ code: 'x', message, elements: [], ...(cures[message] ? { fix: { label: cures[message] } } : {}) }))
            const cures: any = { a: { one: 'Wider' }, b: { two: 'Higher' } }
            server.ms = 100
            server.answer = ({ path, body }) => ({ body: { findings: path === 'cures' ? found(cures[body.document.name]) : found() } })
            const { it } = mounted(() => useAnalysis(document, ref(null), ref(null), moving, () => 0))
            const offered = () => it.analysis.value!.findings.map((f) => f.fix?.label ?? null)
            await pass(150)
            const seen = [offered()]
            await pass(100)
            seen.push(offered())
            document.value = { name: 'b' }
            await pass(150)
            seen.push(offered())
            await pass(100)
            seen.push(offered())
            moving.value = true
            document.value = { name: 'c' }
            await pass(400)
            say([...seen, server.calls.map((c) => `${c.path} ${c.body.document.name}`)])
            TS));
    }

    private static function play(string $script): mixed
    {
        return Scene::play(self::OPEN . $script);
    }
}
