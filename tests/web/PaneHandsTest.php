<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** What a pointer does on the pane: draws, chooses, moves, sizes and pans, and what draws it meanwhile (web/src/Layout/composer/paneHands.ts). */
final class PaneHandsTest extends TestCase
{
    /** The canvas of 800 x 600 px stands at 100, 50 of the pane, at half its size. */
    private const OPEN = <<<'TS'
        import { computed, ref, shallowRef } from 'vue'
        import { makeComposer } from '@/Layout/composer/composer'
        import { usePaneHands } from '@/Layout/composer/paneHands'
        Object.assign(globalThis, { requestAnimationFrame: (frame: (at: number) => void) => setTimeout(() => frame(0), 16) })
        const zone = (id: string, x: number, y: number, more = {}) => ({ id, kind: 'zone', rect: { x, y, width: 100, height: 100 }, playlist: { items: [] }, ...more })
        const open = (elements: any[], more: any = {}) => {
          const document = shallowRef<any>({ name: 'x', canvas: { width: 800, height: 600 }, elements, ...more })
          const composer = makeComposer(document, ref(null), (next) => (document.value = next), () => undefined)
          const panned: number[][] = []
          const view: any = { scale: ref(0.5), left: ref(100), top: ref(50), pan: (x: number, y: number) => panned.push([x, y]) }
          const room: any = ref({ getBoundingClientRect: () => ({ left: 0, top: 0 }), setPointerCapture() {}, focus() {} })
          const snapping = ref(false)
          const drawn: any[] = []
          const hands = usePaneHands({
            composer, view, room, drawn: (rect) => drawn.push(rect),
            analysis: () => ({ tracks: { columns: [], rows: [] }, match: null }) as any,
            snapping: () => snapping.value, wall: () => null, settle: () => undefined,
            sizable: computed(() => composer.only.value),
          })
          // In px of the canvas.
          const at = (x: number, y: number, keys: any = {}) => {
            const target = { getAttribute: () => keys.handle ?? null }
            return { button: 0, pointerId: 1, clientX: 100 + x / 2, clientY: 50 + y / 2, target, preventDefault() {}, ...keys }
          }
          const drag = async (from: number[], to: number[], keys: any = {}) => {
            hands.down(at(from[0]!, from[1]!, keys))
            hands.moved(at(to[0]!, to[1]!, keys))
            await pass(20)
            const guides = hands.guides.value
            hands.up(at(to[0]!, to[1]!, keys))
            return guides
          }
          return { composer, document, snapping, drawn, panned, hands, at, drag, chosen: () => [...composer.chosen.value], places: () => document.value.elements.map((e: any) => [e.rect.x, e.rect.y]) }
        }

        TS;

    public function testWhatIsPressedIsChosenAndMovedWithItsGroup(): void
    {
        self::assertSame([['b', 'c'], [[0, 0], [230, 240], [430, 240]], ['b', 'c', 'a'], ['a'], []], self::play(<<<'TS'
            const { drag, chosen, places } = open([zone('a', 0, 0), zone('b', 200, 200, { group: 'g' }), zone('c', 400, 200, { group: 'g' })])
            await drag([250, 250], [280, 290])
            const moved = [chosen(), places()]
            await drag([50, 50], [50, 50], { shiftKey: true })
            const more = chosen()
            await drag([260, 260], [260, 260], { shiftKey: true })
            const less = chosen()
            await drag([700, 500], [700, 500])
            say([...moved, more, less, chosen()])
            TS));
    }

    public function testWhatIsLockedOrHiddenIsPressedThrough(): void
    {
        self::assertSame([['a'], [[10, 10], [0, 0], [0, 0]], ['a']], self::play(<<<'TS'
            const { drag, chosen, places } = open([zone('a', 0, 0), zone('b', 0, 0, { locked: true }), zone('c', 0, 0, { hidden: true })])
            await drag([50, 50], [60, 60])
            const pressed = [chosen(), places()]
            await drag([600, 500], [5, 5])
            say([...pressed, chosen()])
            TS));
    }

    public function testASlipOfTheHandMovesNothing(): void
    {
        self::assertSame([[[0, 0]], [[8, 0]]], self::play(<<<'TS'
            const { drag, places } = open([zone('a', 0, 0)])
            await drag([50, 50], [54, 50])
            const slip = places()
            await drag([50, 50], [58, 50])
            say([slip, places()])
            TS));
    }

    public function testEdgesGuidesMarginsAndEqualGapsDraw(): void
    {
        self::assertSame([[100, [100]], [350, [400, 350]], [40, [40]], [240, 2], [225, 0]], self::play(<<<'TS'
            const { drag, snapping, places, document } = open([zone('a', 0, 0), zone('b', 0, 300)], { guides: { x: [350] }, safe: 40 })
            snapping.value = true
            const to = async (x: number, y = 340, keys = {}) => {
              const from = document.value.elements[1].rect
              const guides = await drag([from.x + 50, from.y + 40], [x + 50, y], keys)
              return [places()[1][0], guides]
            }
            const edge: any = await to(105)
            const guide: any = await to(345)
            const margin: any = await to(43)
            document.value = { ...document.value, guides: undefined, safe: undefined, elements: [zone('a', 0, 300), zone('b', 600, 300), zone('c', 120, 300)] }
            const row = async (x: number, keys = {}) => {
              const from = document.value.elements[1].rect
              const guides = await drag([from.x + 50, from.y + 40], [x, 340], keys)
              return [places()[1][0], guides.gaps.length]
            }
            const gap = await row(287)
            say([[edge[0], edge[1].x], [guide[0], guide[1].x], [margin[0], margin[1].x], gap, await row(275, { altKey: true })])
            TS));
    }

    public function testAToolDrawsABoxAndAPressPutsOneOfAUsualSize(): void
    {
        self::assertSame([
            ['x' => 100, 'y' => 60, 'width' => 200, 'height' => 140],
            ['x' => 402, 'y' => 301, 'width' => 267, 'height' => 120],
        ], self::play(<<<'TS'
            const { drag, drawn, composer } = open([])
            composer.tool.value = 'text'
            await drag([300, 200], [100, 60])
            await drag([400, 300], [402, 301])
            say(drawn)
            TS));
    }

    public function testAHandleSizesAndTheMiddleButtonPans(): void
    {
        self::assertSame([['x' => 0, 'y' => 0, 'width' => 160, 'height' => 100], ['x' => 0, 'y' => 0, 'width' => 200, 'height' => 200], [[15, 10]], false], self::play(<<<'TS'
            const { drag, document, composer, panned } = open([zone('a', 0, 0)])
            composer.choose(['a'])
            await drag([100, 50], [160, 70], { handle: 'e' })
            const wider = document.value.elements[0].rect
            document.value = { ...document.value, elements: [zone('a', 0, 0)] }
            await drag([100, 100], [200, 130], { handle: 'se', shiftKey: true })
            await drag([0, 0], [30, 20], { button: 1 })
            say([wider, document.value.elements[0].rect, panned, composer.moving.value])
            TS));
    }

    private static function play(string $script): mixed
    {
        return Scene::play(self::OPEN . $script);
    }
}
