<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** A layout and its variants in the composer: what is shared, what each keeps for itself (web/src/Layout/composer/variants.ts). */
final class VariantHandsTest extends TestCase
{
    private const OPEN = <<<'TS'
        import { putBack, seenAs, withVariant, withoutVariant } from '@/Layout/composer/variants'
        const box = (x: number) => ({ x, y: 0, width: 100, height: 50 })
        const base: any = {
          name: 'Both', canvas: { width: 1920, height: 1080 }, recipe: { columns: '7fr 3fr' },
          elements: [
            { id: 'main', kind: 'zone', rect: box(0), playlist: { items: [] } },
            { id: 'head', kind: 'text', rect: box(10), text: 'Welcome', style: { size_px: 72, weight: 600 } },
          ],
        }
        const turned = { ...base, canvas: { width: 1080, height: 1920 }, recipe: undefined,
          elements: [{ ...base.elements[0], rect: box(5) }, { ...base.elements[1], rect: box(6), style: { size_px: 40, weight: 600 } }] }
        const both = withVariant(base, 'portrait', turned)
        const at = (d: any) => d.elements.map((e: any) => [e.id, e.rect.x, e.style?.size_px ?? 0])

        TS;

    public function testEachIsSeenAsALayoutOfItsOwn(): void
    {
        self::assertSame([[['main', 5, 0], ['head', 6, 40]], 1080, null, [['main', 0, 0], ['head', 10, 72]], false], self::play(<<<'TS'
            const portrait = seenAs(both, 'portrait')
            say([at(portrait), portrait.canvas.width, portrait.recipe ?? null, at(seenAs(both, null)), 'variants' in seenAs(both, 'portrait')])
            TS));
    }

    public function testPlacesAndSizesStayApartAndContentIsShared(): void
    {
        self::assertSame([[['main', 0, 0], ['head', 10, 72]], [['main', 5, 0], ['head', 300, 44]], 'Hello', 700, 'New name'], self::play(<<<'TS'
            const seen = seenAs(both, 'portrait')
            const next = putBack(both, 'portrait', { ...seen, name: 'New name',
              elements: [seen.elements[0]!, { ...seen.elements[1]!, rect: box(300), text: 'Hello', style: { size_px: 44, weight: 700 } } as any] })
            const head: any = next.elements[1]
            say([at(next), at(seenAs(next, 'portrait')), head.text, head.style.weight, next.name])
            TS));
    }

    public function testWhatIsTakenOutOfAVariantStaysAndWhatIsTakenOutOfTheLayoutIsGone(): void
    {
        self::assertSame([['main', 'head'], ['main'], ['head'], ['head'], ['main', 'head', 'new'], ['main', 'head', 'new'], false], self::play(<<<'TS'
            const ids = (d: any) => d.elements.map((e: any) => e.id)
            const seen = seenAs(both, 'portrait')
            const less = putBack(both, 'portrait', { ...seen, elements: seen.elements.slice(0, 1) })
            const gone = putBack(both, null, { ...seenAs(both, null), elements: base.elements.slice(1) })
            const more = putBack(both, 'portrait', { ...seen, elements: [...seen.elements, { id: 'new', kind: 'shape', rect: box(9), fill: '#000000' }] })
            say([ids(less), ids(seenAs(less, 'portrait')), ids(gone), ids(seenAs(gone, 'portrait')), ids(more), ids(seenAs(more, 'portrait')), 'variants' in withoutVariant(both, 'portrait')])
            TS));
    }

    /** A leader that a portrait variant has no room for goes on to lead in the layout. */
    public function testALeaderTakenOutOfAVariantLeadsOnInTheLayout(): void
    {
        self::assertSame([[null, null], ['main', 'main'], ['main', 'main'], [null, null]], self::play(<<<'TS'
            const led: any = { ...base, elements: [...base.elements,
              { id: 'side', kind: 'zone', rect: box(20), playlist: { items: [] }, follows: 'main' },
              { id: 'bar', kind: 'shape', rect: box(30), fill: '#000000', progress: { zone: 'main', of: 'item', from: 'left' } }] }
            const whole = withVariant(led, 'portrait', led)
            const refs = (d: any) => [d.elements.find((e: any) => e.id === 'side').follows ?? null, d.elements.find((e: any) => e.id === 'bar').progress?.zone ?? null]
            const seen = seenAs(whole, 'portrait')
            const left = seen.elements.filter((e) => e.id !== 'main').map((e: any) => ({ ...e, follows: undefined, progress: undefined }))
            const next = putBack(whole, 'portrait', { ...seen, elements: left })
            const again = putBack(next, 'portrait', { ...seenAs(next, 'portrait'), name: 'Again' })
            say([refs(seenAs(next, 'portrait')), refs(next), refs(again), refs(putBack(whole, null, { ...led, elements: left }))])
            TS));
    }

    private static function play(string $script): mixed
    {
        return Scene::play(self::OPEN . $script);
    }
}
