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
        const composing = (...elements: any[]) => {
          const document = shallowRef<any>({ name: 'x', canvas: { width: 800, height: 600 }, elements })
          const gestures: unknown[] = []
          const composer = makeComposer(document, (next, gesture) => ((document.value = next), gestures.push(gesture ?? null)))
          return {
            composer,
            document,
            gestures,
            ids: () => document.value.elements.map((e: any) => e.id),
            chosen: () => [...composer.chosen.value],
            at: () => document.value.elements.map((e: any) => [e.rect.x, e.rect.y]),
          }
        }

        TS;

    public function testWhatIsAddedGetsAnIdOfItsOwnAndIsChosen(): void
    {
        self::assertSame([['zone2', 'zone1', 'zone3', 'text1'], ['text1'], 'choose', 'text1', ['zone2', 'zone1', 'zone3']], self::play(<<<'TS'
            const { composer, ids, chosen } = composing(zone('zone2'))
            composer.tool.value = 'zone'
            composer.add(zone(''))
            composer.add(zone(''))
            composer.add(text('') as any)
            const added = [ids(), chosen(), composer.tool.value, composer.only.value?.id]
            composer.remove()
            say([...added, ids()])
            TS));
    }

    public function testWhatIsDuplicatedLiesBesideItsOriginal(): void
    {
        self::assertSame([['a', 'b', 'zone1', 'text1'], [[0, 0], [10, 0], [20, 20], [30, 20]], ['zone1', 'text1'], null, 'kept apart'], self::play(<<<'TS'
            const { composer, document, ids, chosen, at } = composing(zone('a', 0, { playlist: { items: [{ id: 'i1', fit: 'cover' }] } }), text('b', 10))
            composer.choose(['a', 'b'])
            composer.duplicate()
            document.value.elements[2].playlist.items[0].fit = 'kept apart'
            say([ids(), at(), chosen(), composer.only.value, document.value.elements[0].playlist.items[0].fit === 'cover' ? 'kept apart' : 'shared'])
            TS));
    }

    public function testWhatIsCopiedIsPastedInAnotherLayoutAndAgainBesideItself(): void
    {
        self::assertSame([['x', 'a', 'zone1', 'zone2'], [[300, 0], [5, 0], [25, 20], [45, 40]], ['x'], ['x']], self::play(<<<'TS'
            const one = composing(zone('a', 5), zone('b', 9))
            one.composer.choose(['a'])
            one.composer.copy()
            const other = composing(zone('x', 300))
            other.composer.paste()
            other.composer.paste()
            other.composer.paste()
            const pasted = [other.ids(), other.at()]
            storage.kept.clear()
            const empty = composing(zone('x'))
            empty.composer.paste()
            const nothing = empty.ids()
            empty.composer.copy()
            empty.composer.paste()
            say([...pasted, nothing, empty.ids()])
            TS));
    }

    public function testWhatBelongsTogetherIsChosenMovedAndCopiedTogether(): void
    {
        self::assertSame([['a', 'b'], ['a', 'b'], [[10, 0], [110, 0], [300, 0]], ['group1', 'group1', null, 'group2', 'group2'], [null, null, null]], self::play(<<<'TS'
            const { composer, document, chosen, at } = composing(zone('a'), text('b', 100), zone('c', 300))
            composer.choose(['a', 'b'])
            composer.group()
            composer.chooseWhole(['b'])
            const whole = chosen()
            composer.choose([])
            composer.chooseWhole(['a'])
            const again = chosen()
            composer.nudge(10, 0)
            const moved = at()
            composer.duplicate()
            const groups = document.value.elements.map((e: any) => e.group ?? null)
            composer.choose(['a', 'b'])
            composer.ungroup()
            say([whole, again, moved, groups, document.value.elements.slice(0, 3).map((e: any) => e.group ?? null)])
            TS));
    }

    public function testWhatIsLockedStaysWhereItIs(): void
    {
        self::assertSame([[[0, 0], [101, 0]], ['a'], 'What is locked stays; unlock it first.', [true, null], [null, true]], self::play(<<<'TS'
            const { composer, document, ids, at } = composing(zone('a'), zone('b', 100))
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
            const other = document.value.elements.map((e: any) => e.locked ?? null)
            composer.toggle('locked')
            composer.choose(['a'])
            composer.toggle('locked')
            composer.choose(['a', 'b'])
            composer.remove()
            say([places, ids(), composer.notice.value?.said[0], locked, other])
            TS));
    }

    public function testTheStackIsChangedForAllThatIsChosen(): void
    {
        self::assertSame(['bacd', 'cabd', 'cdab', 'abcd', 'abcd'], self::play(<<<'TS'
            const { composer, ids } = composing(zone('a'), zone('b'), zone('c'), zone('d'))
            const said: string[] = []
            const after = (by: number, ...of: string[]) => (composer.choose(of), composer.restack(by), said.push(ids().join('')))
            after(1, 'a')
            composer.restack(-1)
            after(1, 'a', 'b')
            after(Infinity, 'a', 'b')
            after(-Infinity, 'a', 'b')
            after(-1, 'a')
            say(said)
            TS));
    }

    public function testAShapeThatFillsUpWithAZoneThatGoesIsPlainAgain(): void
    {
        self::assertSame([null], self::play(<<<'TS'
            const bar = { id: 'bar', kind: 'shape', rect: box(0, 0), fill: '#000000', progress: { zone: 'a' } }
            const { composer, document } = composing(zone('a'), bar)
            composer.choose(['a'])
            composer.remove()
            say(document.value.elements.map((e: any) => e.progress ?? null))
            TS));
    }

    public function testALeaderThatGoesLeavesItsFollowersOnTheirOwn(): void
    {
        self::assertSame([[null], ['alone'], 'lead'], self::play(<<<'TS'
            const { composer, document } = composing(zone('lead'), zone('after', 100, { follows: 'lead' }))
            composer.choose(['after'])
            composer.copy()
            composer.duplicate()
            const beside = document.value.elements[2].follows
            composer.choose(['lead'])
            composer.remove()
            const other = composing(zone('alone'))
            other.composer.paste()
            say([[document.value.elements[0].follows ?? null], other.document.value.elements.filter((e: any) => !e.follows).map((e: any) => e.id).slice(0, 1), beside])
            TS));
    }

    public function testTheStackEndsAtItsTopAndItsBottom(): void
    {
        self::assertSame([['b', 'a', 'c'], ['b', 'c', 'a'], 2, ['a', 'b', 'c']], self::play(<<<'TS'
            const { composer, ids, gestures } = composing(zone('a'), zone('b'), zone('c'))
            composer.choose(['a'])
            composer.restack(1)
            const once = ids()
            composer.restack(9)
            composer.restack(1)
            const top = [ids(), gestures.length]
            composer.restack(-9)
            say([once, ...top, ids()])
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
            say([ids(), gestures.length, [...composer.chosen.value]])
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
            server.ms = 200
            let away = false
            server.answer = ({ body }) => (away ? 'away' : { body: { said: body.document.name } })
            const moving = ref(false)
            const { it } = mounted(() => useAnalysis(document, display, moving, () => Date.parse('2026-06-01T10:00:00Z')))
            await pass(50)
            for (const name of ['b', 'c', 'd']) {
              document.value = { name }
              await pass(20)
            }
            await pass(1000)
            const seen = [server.calls.map((c) => c.body.document.name), (it.analysis.value as any).said]
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
            server.answer = ({ body: { document, light } }) => ({ body: { findings: document.name, ...(light ? {} : { run_sheet: `sheet of ${document.name}`, media: { of: document.name } }) } })
            const { it } = mounted(() => useAnalysis(document, ref(null), moving, () => 0))
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
              server.calls.map((c) => [c.body.light === true, c.body.document.name]),
              [during.findings, during.run_sheet, during.media === media ? 'same' : 'new'],
              [after.findings, after.run_sheet],
            ])
            TS));
    }

    private static function play(string $script): mixed
    {
        return Scene::play(self::OPEN . $script);
    }
}
