<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use Random\Randomizer;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Overlay\Mark;
use UpperPane\Core\Overlay\Notice;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Room;
use UpperPane\Core\Overlay\Strip;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Overlay\OverlayDocuments;

/**
 * Where overlays lie, and what strips leave, on eight rasters against the same written as CSS and laid out by Debian's Chromium 156: container units for
 * shares of a canvas, flex boxes for strips that take their part, `inset` and `place-self` for corners and places, `object-fit` for what is squeezed.
 */
final class OverlayPlacesTest extends TestCase
{
    private const RASTERS = [[1920, 1080], [1080, 1920], [3840, 2160], [1920, 540], [192, 96], [1366, 768], [5764, 2164], [720, 720]];

    /** `canvas` is the container; `rest` is what strips left of it, each having taken its part of what the one before left. */
    private const LAID_OUT = <<<'JS'
        document.documentElement.style.cssText = 'margin:0';
        document.body.style.cssText = 'margin:0';
        const make = (parent, css, tag = 'div') => {
            const made = document.createElement(tag);
            made.style.cssText = css;
            return parent.appendChild(made);
        };
        const box = (one) => { const r = one.getBoundingClientRect(); return [r.x, r.y, r.width, r.height]; };
        return arguments[0].map(({ raster: [width, height], strips, mark, notice }) => {
            document.body.replaceChildren();
            const canvas = make(document.body, `position:relative;container-type:size;width:${width}px;height:${height}px;overflow:hidden`);
            let rest = make(canvas, 'position:absolute;inset:0');
            const laid = strips.map(({ edge, thickness }) => {
                const upright = edge === 'left' || edge === 'right';
                rest.style.display = 'flex';
                rest.style.flexDirection = { top: 'column', bottom: 'column-reverse', left: 'row', right: 'row-reverse' }[edge];
                const strip = make(rest, `flex:none;${upright ? `width:calc(${thickness} * 100cqw)` : `height:calc(${thickness} * 100cqh)`}`);
                rest = make(rest, 'flex:1;position:relative;min-width:0;min-height:0');
                return strip;
            });
            const [high, along] = mark.corner.split('-');
            const corner = make(rest, `position:absolute;${high}:calc(${mark.inset} * 100cqmin);${along}:calc(${mark.inset} * 100cqmin);height:calc(${mark.size} * 100cqmin);aspect-ratio:400/120`);
            const [at, side] = notice.place.split('-');
            const where = { top: 'start', bottom: 'end', left: 'start', right: 'end', middle: 'center' };
            const room = make(rest, 'position:absolute;inset:0;display:grid;padding:5cqmin');
            const around = `calc(${notice.padding} * 100cqmin)`;
            const words = make(room, `place-self:${where[at]} ${where[side] ?? 'center'};box-sizing:content-box;padding:${around};width:calc(${notice.width} * 100cqw - 2 * ${around});`
                + `height:${notice.lines}px`);
            const plays = make(rest, 'position:absolute;inset:0;display:grid;place-items:center;container-type:size');
            const wide = make(plays, `aspect-ratio:${width}/${height};width:min(100cqw, 100cqh * ${width} / ${height})`);
            return { strips: laid.map(box), mark: box(corner), notice: box(words), plays: box(wide) };
        });
        JS;

    public function testChromiumLaysThemOutWhereTheCoreSays(): void
    {
        $random = Make::random(160);
        $cases = [];
        foreach (self::RASTERS as $raster) {
            for ($n = 0; $n < 12; $n++) {
                $cases[] = self::drawn($random, $raster);
            }
        }
        $chrome = Chrome::open(1200, 800);
        try {
            $chrome->go('data:text/html,<!doctype html><title>places</title>');
            /** @var list<array<string, list<mixed>>> $laid */
            $laid = $chrome->driver->executeScript(self::LAID_OUT, [$cases]);
        } finally {
            $chrome->close();
        }
        foreach ($cases as $n => $case) {
            $what = json_encode($case) ?: '';
            $room = Room::whole(Size::px(...$case['raster']));
            foreach ($case['strips'] as $place => ['edge' => $edge, 'thickness' => $thickness]) {
                $strip = self::overlay(OverlayDocuments::strip($edge, $thickness))->lies;
                assert($strip instanceof Strip);
                self::near($laid[$n]['strips'][$place], $strip->rect($room), $what);
                $room = $strip->squeezed($room, 'strip');
            }
            $mark = self::overlay(OverlayDocuments::mark($case['mark']['corner'], $case['mark']['size'], $case['mark']['inset']))->lies;
            assert($mark instanceof Mark);
            self::near($laid[$n]['mark'], $mark->rect($room, $mark->media->size), $what);
            $notice = self::overlay(OverlayDocuments::notice($case['notice']['place'], $case['notice']['width'], padding: $case['notice']['padding']))->lies;
            assert($notice instanceof Notice);
            self::near($laid[$n]['notice'], $notice->rect($room, (float) $case['notice']['lines']), $what);
            $whole = Make::composed(Make::layout([['id' => 's', 'kind' => 'shape', 'rect' => Rect::whole($room->canvas)->toArray(), 'shape' => 'rectangle', 'fill' => '#ffffff']], ...$case['raster']));
            $drawn = ShownAt::of(Programme::endless($whole)->into($room->canvas, $room->rest))->at(0)->things[0]->part->drawn;
            foreach (['x', 'y', 'width', 'height'] as $place => $side) {
                self::assertEqualsWithDelta($laid[$n]['plays'][$place], $drawn->$side, 3.0, "$side of what plays, $what");
            }
        }
    }

    /**
     * @param array{int, int} $raster
     * @return array{raster: array{int, int}, strips: list<array{edge: string, thickness: float}>, mark: array{corner: string, size: float, inset: float},
     *     notice: array{place: string, width: float, padding: float, lines: int}}
     */
    private static function drawn(Randomizer $random, array $raster): array
    {
        $one = static fn (string ...$of): string => $of[$random->getInt(0, count($of) - 1)];
        $strips = [];
        for ($n = $random->getInt(0, 2); $n > 0; $n--) {
            $strips[] = ['edge' => $one('top', 'bottom', 'left', 'right'), 'thickness' => $random->getInt(20, 150) / 1000];
        }

        return [
            'raster' => $raster,
            'strips' => $strips,
            'mark' => ['corner' => $one('top-left', 'top-right', 'bottom-left', 'bottom-right'), 'size' => $random->getInt(20, 200) / 1000, 'inset' => $random->getInt(0, 60) / 1000],
            'notice' => [
                'place' => $one('top', 'middle', 'bottom') . $one('', '-left', '-right'),
                'width' => $random->getInt(150, 500) / 1000,
                'padding' => $random->getInt(0, 30) / 1000,
                'lines' => $random->getInt(5, 20),
            ],
        ];
    }

    private static function near(mixed $laid, Rect $rect, string $what): void
    {
        self::assertIsArray($laid);
        // Whole px here, and what lies beside it too: up to a px and a half lies between.
        foreach (array_values($rect->toArray()) as $place => $px) {
            self::assertEqualsWithDelta($laid[$place], $px, 1.6, sprintf('%s of %s', ['x', 'y', 'width', 'height'][$place], $what));
        }
    }

    /** @param array<string, mixed> $document */
    private static function overlay(array $document): Overlay
    {
        return Overlay::fromArray($document);
    }
}
