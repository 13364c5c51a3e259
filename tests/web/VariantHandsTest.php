<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/**
 * A layout and its variants under the hands of the composer: what is shared, what each keeps for itself (web/src/Layout/composer/variants.ts).
 * Putting in, taking out and making variants is the core's (ActsTest, VariantsTest).
 */
final class VariantHandsTest extends TestCase
{
    private const OPEN = <<<'TS'
        import { seenIn, withElements, withFields } from '@/Layout/composer/variants'
        const box = (x: number) => ({ x, y: 0, width: 100, height: 50 })
        const both: any = {
          name: 'Both', canvas: { width: 1920, height: 1080 }, recipe: { columns: '7fr 3fr' }, safe: 40,
          elements: [
            { id: 'main', kind: 'zone', rect: box(0), playlist: { items: [] } },
            { id: 'head', kind: 'text', rect: box(10), text: 'Welcome', style: { size_px: 72, weight: 600 } },
            { id: 'foot', kind: 'shape', rect: box(20), fill: '#000000' },
          ],
          variants: [{ id: 'portrait', canvas: { width: 1080, height: 1920 }, places: { main: { rect: box(5) }, head: { rect: box(6), size_px: 40 } } }],
        }
        const at = (d: any) => d.elements.map((e: any) => [e.id, e.rect.x, e.style?.size_px ?? 0])
        const change = (whole: any, id: string, fields: any) => withElements(whole, 'portrait', new Map([[id, fields]]))

        TS;

    public function testEachIsSeenAsALayoutOfItsOwn(): void
    {
        self::assertSame([[['main', 5, 0], ['head', 6, 40]], 1080, [null, null], [['main', 0, 0], ['head', 10, 72], ['foot', 20, 0]], false], self::play(<<<'TS'
            const portrait = seenIn(both, 'portrait')
            say([at(portrait), portrait.canvas.width, [portrait.recipe ?? null, portrait.safe ?? null], at(seenIn(both, null)), 'variants' in portrait])
            TS));
    }

    public function testPlacesAndSizesStayApartAndContentIsShared(): void
    {
        self::assertSame([[['main', 0, 0], ['head', 10, 72], ['foot', 20, 0]], [['main', 5, 0], ['head', 300, 44]], 'Hello', 700, 72], self::play(<<<'TS'
            let whole = change(both, 'head', { rect: box(300), text: 'Hello' })
            whole = change(whole, 'head', { style: { size_px: 44, weight: 700 } })
            whole = change(whole, 'foot', { fill: '#ffffff' })
            const head: any = whole.elements[1]
            const plain = change({ ...both, variants: [{ ...both.variants[0], places: { head: { rect: box(6) } } }] }, 'head', { style: { size_px: 72, color: '#ffffff' } })
            say([at(whole), at(seenIn(whole, 'portrait')), head.text, head.style.weight, 'size_px' in (plain as any).variants[0].places.head ? 0 : 72])
            TS));
    }

    public function testACanvasAndItsLinesAreItsOwnAndANameIsShared(): void
    {
        self::assertSame([[40, 12, 'New'], [null, null, 'New'], [null, 12, 'New']], self::play(<<<'TS'
            const said = (d: any) => [d.safe ?? null, d.variants[0].safe ?? null, d.name]
            const whole = withFields(both, 'portrait', { safe: 12, name: 'New' })
            say([said(whole), said(withFields(withFields(whole, 'portrait', { safe: undefined }), null, { safe: undefined })), said(withFields(whole, null, { safe: undefined }))])
            TS));
    }

    /** A leader that the variant does not show leads on in the layout, whatever is changed of its follower. */
    public function testWhatFollowsALeaderThatIsNotSeenGoesOnFollowingIt(): void
    {
        self::assertSame(['main', 'Side', null], self::play(<<<'TS'
            const { leaderOf } = await import('@/Layout/kinds/zone/zone')
            const led: any = { ...both, elements: [...both.elements, { id: 'side', kind: 'zone', rect: box(30), playlist: { items: [] }, follows: 'main' }],
              variants: [{ id: 'portrait', canvas: both.canvas, places: { side: { rect: box(1) } } }] }
            const side: any = change(led, 'side', { name: 'Side' }).elements[3]
            const seen = seenIn(led, 'portrait').elements
            say([side.follows, side.name, leaderOf(seen[0] as any, seen) ?? null])
            TS));
    }

    private static function play(string $script): mixed
    {
        return Scene::play(self::OPEN . $script);
    }
}
