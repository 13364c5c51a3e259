<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** What is put on the page for an instant, in the composer, in small pictures and in the player alike (web/src/pane/stage.ts). */
final class StageTest extends TestCase
{
    private const OPEN = <<<'TS'
        import { Stage } from '@/pane/stage'
        const rect = (x: number, y: number, width: number, height: number) => ({ x, y, width, height })
        const host = page.open()
        const addresses: Record<string, { url: string; type: string }> = { pier: { url: '/files/pier.png', type: 'image/png' }, quay: { url: '/files/quay.mp4', type: 'video/mp4' } }
        const stage = new Stage(host as any, (id) => addresses[id] ?? null)
        const zone = { x: 100, y: 50, width: 400, height: 200 }
        const picture = { element: 'z', kind: 'zone', item: 'i1', rect: zone, drawn: rect(50, 50, 500, 200), media: { id: 'pier', name: 'pier.png', width: 500, height: 200 } }
        const film = { ...picture, item: 'f1', media: { id: 'quay', name: 'quay.mp4', width: 500, height: 200, length_ms: 10000 } }
        const style = { family: 'Inter', size_px: 60, weight: 700, color: '#ffffff', align: 'center', valign: 'bottom', line_height: 1.2 }
        const words = { element: 't', kind: 'text', rect: rect(0, 0, 300, 80), drawn: rect(0, 0, 300, 80), text: 'Gate 7', style }
        const shape = { element: 's', kind: 'shape', rect: rect(0, 0, 90, 90), drawn: rect(0, 0, 90, 90), shape: 'ellipse', fill: '#14665b' }
        const turns = (...parts: any[]) => ({
          zone: 'z',
          period_ms: 10000 * parts.length,
          segments: parts.map((_, n) => ({ start_ms: 10000 * n, length_ms: 10000, fade_ms: n ? 1000 : 0, scene: n })),
          scenes: parts.map((part) => [{ part }]),
        })
        const sheet = (...layers: any[]): any => ({ canvas: { width: 1920, height: 540 }, background: '#102030', anchor_ms: 0, layers })
        const canvas = () => (host as any).children[0]
        const clips = () => canvas().children as any[]
        const px = (node: any) => ['left', 'top', 'width', 'height'].map((side) => node.style[side])

        TS;

    public function testEverythingStandsWhereTheCoreSays(): void
    {
        self::assertSame([
            ['1920px', '540px', '#102030', 'translate(10px, 20px) scale(0.5, 0.5)'],
            ['100px', '50px', '400px', '200px'],
            ['-50px', '0px', '500px', '200px'],
            ['img', '/files/pier.png'],
            ['z', 'i1', 'hidden', '1', '2', '3'],
            ['Gate 7', '"Inter", sans-serif', '60px', '700', 'center', 'flex-end'],
            ['#14665b', '50%'],
        ], self::play(<<<'TS'
            stage.show(sheet({ part: picture }, { part: words }, { part: shape }))
            stage.place(10, 20, 0.5)
            stage.draw(0, false)
            const [z, t, s] = clips()
            say([
              [canvas().style.width, canvas().style.height, canvas().style.background, canvas().style.transform],
              px(z),
              px(z.children[0]),
              [z.children[0].tag, z.children[0].src],
              [z.dataset.element, z.dataset.item, z.style.overflow, z.style.zIndex, t.style.zIndex, s.style.zIndex],
              [t.children[0].children[0].textContent, ...['fontFamily', 'fontSize', 'fontWeight', 'textAlign', 'justifyContent'].map((k) => t.children[0].style[k])],
              [s.children[0].style.background, s.children[0].style.borderRadius],
            ])
            TS));
    }

    public function testAnElementMayBeDrawnInManyParts(): void
    {
        self::assertSame([['0px', '20px', '40px'], ['0px', '20px']], self::play(<<<'TS'
            const stripe = (x: number) => ({ part: { ...shape, shape: 'rectangle', rect: rect(x, 0, 10, 90), drawn: rect(x, 0, 10, 90) } })
            const lefts = () => clips().map((c) => c.style.left)
            stage.show(sheet(stripe(0), stripe(20), stripe(40)))
            stage.draw(0, false)
            const three = lefts()
            stage.show(sheet(stripe(0), stripe(20)))
            stage.draw(0, false)
            say([three, lefts()])
            TS));
    }

    public function testItemsTakeTheirTurnAndFadeOneOverTheOther(): void
    {
        self::assertSame([
            [['i1', '1', '1']],
            [['i1', '1', '1'], ['f1', '2', '0.25']],
            [['f1', '1', '1']],
        ], self::play(<<<'TS'
            stage.show(sheet(turns(picture, film)))
            say(
              [9999, 10250, 11000].map((at) => {
                stage.draw(at, false)
                return clips().map((c) => [c.dataset.item, c.style.zIndex, c.style.opacity])
              }),
            )
            TS));
    }

    public function testAPlayerKeepsWhatIsNotDueReady(): void
    {
        self::assertSame([[['i1', 'visible']], [['i1', 'hidden'], ['f1', 'visible']], [['i1', 'visible'], ['f1', 'hidden']], true], self::play(<<<'TS'
            const keeping = new Stage(host as any, (id) => addresses[id] ?? null, true)
            keeping.show(sheet(turns(picture, film)))
            const kept = () => (host as any).children[1].children as any[]
            const seen: unknown[] = [5000, 15000, 25000].map((at) => {
              keeping.draw(at, true)
              return kept().map((c) => [c.dataset.item, c.style.visibility])
            })
            say([...seen, kept()[1].children[0].paused])
            TS));
    }

    public function testAFilmStandsAtItsFrameOrRunsAndIsCorrectedWhenItDrifts(): void
    {
        self::assertSame(['still' => [4, true, 1], 'runs' => [false, 1], 'drifted' => [5.4, 2], 'held' => [9.96, true], 'muted' => true], self::play(<<<'TS'
            stage.show(sheet({ ...turns(film), period_ms: null, segments: [{ start_ms: 0, length_ms: null, fade_ms: 0, scene: 0 }] }))
            stage.draw(4000, false)
            const f = clips()[0].children[0]
            const still = [f.currentTime, f.paused, f.seeks]
            stage.draw(4200, true)
            const runs = [f.paused, f.seeks]
            stage.draw(5400, true)
            const drifted = [f.currentTime, f.seeks]
            stage.draw(60000, true)
            say({ still, runs, drifted, held: [f.currentTime, f.paused], muted: f.muted })
            TS));
    }

    public function testWhatAHandDragsStaysUnderItUntilTheCoreAnswers(): void
    {
        self::assertSame([
            [['110px', '80px', '400px', '200px'], ['-50px', '0px', '500px', '200px']],
            [['0px', '0px', '900px', '80px'], ['0px', '0px', '900px', '80px']],
            ['100px', '50px', '400px', '200px'],
            ['100px', '50px', '400px', '200px'],
        ], self::play(<<<'TS'
            stage.show(sheet({ part: picture }, { part: words }))
            stage.draw(0, false)
            const [z, t] = clips()
            stage.override('z', rect(110, 80, 400, 200))
            stage.override('t', rect(0, 0, 900, 80))
            stage.draw(16, false)
            const dragged = [[px(z), px(z.children[0])], [px(t), px(t.children[0])]]
            stage.override('z', null)
            const dropped = px(z)
            stage.override('z', rect(0, 0, 1, 1))
            stage.show(sheet({ part: { ...picture } }, { part: words }))
            stage.draw(32, false)
            say([...dragged, dropped, px(z)])
            TS));
    }

    public function testAMediaThatIsGoneIsNamedAndTakenAsSoonAsItIsThere(): void
    {
        self::assertSame(['pier.png is not there', 'img', 1], self::play(<<<'TS'
            const later = { ...addresses }
            delete addresses.pier
            stage.show(sheet({ part: picture }))
            stage.draw(0, false)
            const gone = clips()[0].children[0].textContent
            stage.show(sheet({ part: picture }), (id) => later[id] ?? null)
            stage.draw(0, false)
            say([gone, clips()[0].children[0].tag, clips().length])
            TS));
    }

    public function testAFilmShowsItsSmallPictureUntilItsFrameIsThere(): void
    {
        self::assertSame(['0 0 / 100% 100% url("/files/quay-small.png")', null, null], self::play(<<<'TS'
            stage.show(sheet({ part: film }), () => ({ url: '/files/quay.mp4', type: 'video/mp4', thumbnail: '/files/quay-small.png' }))
            stage.draw(0, false)
            const small = clips()[0].children[0].style.background
            const player = new Stage(host as any, (id) => addresses[id] ?? null)
            player.show(sheet({ part: film }, { part: picture }))
            player.draw(0, true)
            say([small, ...(host as any).children[1].children.map((c: any) => c.children[0].style.background ?? null)])
            TS));
    }

    public function testOneMediaInTwoPlacesIsDrawnTwice(): void
    {
        self::assertSame([2, 0, 0], self::play(<<<'TS'
            stage.show(sheet({ part: picture }, { part: { ...picture, rect: rect(600, 0, 10, 10) } }))
            stage.draw(0, false)
            const twice = clips().length
            stage.show(sheet())
            stage.draw(0, false)
            const none = clips().length
            stage.destroy()
            say([twice, none, (host as any).children.length])
            TS));
    }

    private static function play(string $script): mixed
    {
        return Scene::play(self::OPEN . $script);
    }
}
