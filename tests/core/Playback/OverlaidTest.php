<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Told\Speaking;
use UpperPane\Core\Media\Holes;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Playback\Overlaid;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Overlay\OverlayDocuments;
use UpperPane\Tests\Core\Typewriter;

/** What is shown with all that lies above: what plays is squeezed or hidden, overlays come and go, what they say is told. */
final class OverlaidTest extends TestCase
{
    /** The example of the contract: 1920 x 1080 under a squeezing strip of 108 px at the bottom is 1728 x 972 at 96, 0. */
    public function testAStripSqueezesWhatPlaysAndTheRestStaysBlack(): void
    {
        $base = ['background' => ['color' => '#123456']] + Make::layout([Make::zone('z', 0, 0, 960, 1080, [Make::picture('a', 960, 1080)]), self::text('t', 100, 900, 800, 100)]);
        $shown = $this->shown($base, [OverlayDocuments::strip(room: 'squeeze', speed_px_s: 110)], 0);
        self::assertSame('#000000', $shown['background']['color']);
        self::assertSame([
            ['test', 96, 0, 1728, 972], ['z', 96, 0, 864, 972], ['t', 186, 810, 720, 90], ['strip', 0, 972, 1920, 108],
        ], self::rects($shown));
        self::assertEquals(36, $shown['things'][2]['style']['size_px'], 'type shrinks with it');
        self::assertSame(['Late boats', 200, 1920], [$shown['things'][3]['text'], $shown['things'][3]['length_px'], $shown['things'][3]['from_px']]);
        self::assertSame(1860, $this->shown($base, [OverlayDocuments::strip(room: 'squeeze', speed_px_s: 110)], 500)['things'][3]['from_px'], '110 is 120 px a second');

        $covered = $this->shown($base, [OverlayDocuments::strip()], 0);
        self::assertSame(['#123456', ['z', 0, 0, 960, 1080]], [$covered['background']['color'], self::rects($covered)[0]], 'what covers leaves it as it is');
        $side = OverlayDocuments::strip('left', 0.1, id: 'side', room: 'squeeze', created: '2026-02-01T00:00:00Z');
        $twice = $this->shown($base, [OverlayDocuments::strip(room: 'squeeze'), $side, OverlayDocuments::mark('bottom-left', 0.1, 0.0)], 0);
        self::assertSame([['strip', 0, 972, 1920, 108], ['side', 0, 0, 192, 972], ['mark', 192, 864, 360, 108]], array_slice(self::rects($twice), -3));
        self::assertSame(['test', 192, 0, 1728, 972], self::rects($twice)[0], 'fitted into what both leave');
    }

    /** On a display the canvas is its raster, and a layout of another shape is fitted into it. */
    public function testALayoutOfAnotherShapeIsFittedIntoTheDisplay(): void
    {
        $square = Make::layout([self::text('t', 100, 100, 100, 50)], 1000, 1000);
        $shown = $this->shown($square, [OverlayDocuments::mark('top-left', 0.1, 0.0)], 0, Size::px(1920, 1080));
        self::assertSame([['t', 528, 108, 108, 54], ['mark', 0, 0, 360, 108]], self::rects($shown));
        $thirds = $this->shown(Make::layout([self::text('t', 1, 1, 100, 50)], 900, 700), [OverlayDocuments::mark()], 0, Size::px(1000, 500));
        self::assertSame(['t', 179.29, 0.71, 71.43, 35.71], self::rects($thirds)[0], 'to 0.01 px');
    }

    public function testATakeoverHidesAllBelowAndBeginsWithItsOccurrence(): void
    {
        $items = [Make::picture('p', 10, 10, 4000), Make::picture('q', 10, 10, 4000)];
        $alarm = ['background' => ['color' => '#a4262c']] + Make::layout([Make::zone('z', 0, 0, 1000, 1000, $items)], 1000, 1000, 'alarm');
        $when = ['bookings' => [['start' => '2026-06-01T10:00:01Z', 'end' => '2026-06-01T10:01:00Z']]];
        $overlays = [OverlayDocuments::takeover(when: $when), OverlayDocuments::mark(), OverlayDocuments::strip(room: 'squeeze')];
        $at = Instant::parse('2026-06-01T10:00:07Z')->ms;
        $shown = $this->shown(Make::layout([self::text('t', 0, 0, 100, 50)]), $overlays, $at, null, [$alarm]);
        self::assertSame('#000000', $shown['background']['color']);
        self::assertSame([['alarm', 420, 0, 1080, 1080], ['z', 420, 0, 1080, 1080]], self::rects($shown));
        self::assertSame([['q', 2000], ['takeover', 'takeover']], [[$shown['things'][1]['item'], $shown['things'][1]['offset_ms']], array_column($shown['things'], 'overlay')]);
        self::assertCount(3, $this->shown(Make::layout([self::text('t', 0, 0, 100, 50)]), $overlays, $at - 7000, null, [$alarm])['things'], 'before it begins');

        $shown = $this->shown(Make::layout([]), $overlays, $at, null, [['canvas' => ['width' => 1920, 'height' => 1080], 'elements' => []] + $alarm]);
        self::assertSame(['#a4262c', []], [$shown['background']['color'], $shown['things']], 'one that fills the canvas');
        $picture = $this->shown(Make::layout([]), [['plays' => ['media' => 'siren'], 'fit' => 'cover'] + OverlayDocuments::takeover()], 0);
        self::assertSame([['whole', 0, 0, 1920, 1080]], self::rects($picture));
        self::assertEquals(['x' => 0, 'y' => -420, 'width' => 1920, 'height' => 1920], $picture['things'][0]['drawn']);
    }

    /** What plays goes on in the opening of the sign, above what the sign has below that, and below what it has above. */
    public function testAWindowHoldsWhatPlaysAtItsPlaceInItsLayout(): void
    {
        $opening = ['id' => 'open', 'kind' => 'programme', 'rect' => ['x' => 100, 'y' => 0, 'width' => 800, 'height' => 450]];
        $sign = ['background' => ['color' => '#f5e6b8']] + Make::layout([self::text('under', 0, 0, 100, 50), $opening, self::text('over', 0, 400, 1000, 50)], 960, 540, 'sign');
        $window = ['plays' => ['layout' => 'sign']] + OverlayDocuments::window();
        $base = Make::layout([self::text('t', 0, 0, 192, 108)]);
        $shown = $this->shown($base, [$window], 0, null, [$sign]);
        self::assertSame('#f5e6b8', $shown['background']['color']);
        self::assertSame([['under', 0, 0, 200, 100], ['test', 200, 0, 1600, 900], ['t', 200, 0, 160, 90], ['over', 0, 800, 1920, 100]], self::rects($shown));
        self::assertSame(['window', null, null, 'window'], array_map(static fn (array $one): ?string => $one['overlay'] ?? null, $shown['things']));
        self::assertEqualsWithDelta(40 * 1600 / 1920, $shown['things'][2]['style']['size_px'], 0.01);

        $squeezed = self::rects($this->shown($base, [$window, OverlayDocuments::strip(room: 'squeeze')], 0, null, [$sign]));
        self::assertSame([['sign', 96, 0, 1728, 972], ['under', 96, 0, 180, 90], ['test', 276, 0, 1440, 810], ['t', 276, 0, 144, 81]], array_slice($squeezed, 0, 4), 'with the window that holds it');
        self::assertSame(['strip', 0, 972, 1920, 108], $squeezed[5]);
        $two = [$window, ['id' => 'high', 'level' => 1] + $window];
        self::assertSame('high', $this->shown($base, $two, 0, null, [$sign])['things'][0]['overlay'], 'of two the higher alone');
        $shut = ['elements' => [self::text('under', 0, 0, 100, 50)]] + $sign;
        self::assertSame([['under', 0, 0, 200, 100]], self::rects($this->shown($base, [$window], 0, null, [$shut])));
    }

    /** Of a window and what goes on in it the louder is heard, of equals the window. */
    public function testOneOfBothIsHeard(): void
    {
        $film = static fn (string $id): array => ['volume' => 80] + Make::film($id);
        $opening = ['id' => 'open', 'kind' => 'programme', 'rect' => ['x' => 0, 'y' => 0, 'width' => 960, 'height' => 540]];
        $sign = Make::layout([Make::zone('y', 960, 0, 960, 540, [$film('sign')]), $opening], 1920, 1080, 'sign');
        $base = Make::layout([Make::zone('z', 0, 0, 1920, 1080, [$film('base')])]);
        $heard = fn (array $volumes): array => array_column($this->shown($base, [$volumes + OverlayDocuments::window()], 0, null, [$sign])['things'], 'volume', 'item');
        self::assertSame(['base' => 80], $heard([]));
        self::assertSame(['base' => 24], $heard(['programme_volume' => 30]));
        self::assertSame(['sign' => 40], $heard(['programme_volume' => 30, 'volume' => 50]));
        self::assertSame(['sign' => 24], $heard(['programme_volume' => 30, 'volume' => 30]));
        self::assertSame([], $heard(['programme_volume' => 0]));
    }

    /** The picture is drawn as it fills the canvas; its hole is rounded inwards there. */
    public function testWhatPlaysIsSeenThroughTheHoleOfAPicture(): void
    {
        $window = ['plays' => ['media' => 'frame']] + OverlayDocuments::window();
        // In a picture of 300 x 100 px a hole of 101 x 51 at 10, 20: on 1920 x 1080 64 to 710.4, 216 to 766.8.
        $holes = new class implements Holes {
            public function largest(Media $picture): ?Rect
            {
                return $picture->name === 'frame.png' ? Rect::at(10, 20, 101, 51) : null;
            }
        };
        $shown = $this->shown(Make::layout([self::text('t', 0, 0, 192, 108)]), [$window], 0, holes: $holes);
        $scale = 646 / 1920;
        $seen = array_map(static fn (mixed $one): mixed => is_float($one) ? round($one, 2) : $one, self::rects($shown)[1]);
        self::assertSame(['t', 64, round(216 + (550 - 1080 * $scale) / 2, 2), 64.6, round(108 * $scale, 2)], $seen);
        self::assertSame(['whole', 0, 0, 1920, 1080], self::rects($shown)[2]);
        self::assertEquals(['x' => 0, 'y' => 0, 'width' => 1920, 'height' => 1080], $shown['things'][2]['drawn']);
        self::assertSame([null, null, 'window'], array_map(static fn (array $one): ?string => $one['overlay'] ?? null, $shown['things']));
    }

    /** Counted across loops from the anchor, held against a count of our own at every second. */
    public function testAfterEveryThirdItemItStandsForAWhile(): void
    {
        $base = Make::layout([Make::zone('z', 0, 0, 1920, 1080, [Make::picture('a', durationMs: 7000), Make::picture('b', durationMs: 4000)])]);
        $after = [OverlayDocuments::takeover(when: ['after' => ['every' => 3], 'lasts_ms' => 2500])];
        [$ends, $end] = [[], 0];
        for ($n = 1; $n < 60; $n++) {
            $end += $n % 2 === 1 ? 7000 : 4000;
            $n % 3 === 0 ? $ends[] = $end : null;
        }
        $alarm = Make::layout([Make::zone('y', 0, 0, 100, 100, [Make::picture('s', durationMs: 1000), Make::picture('u', durationMs: 9000)])], 100, 100, 'alarm');
        foreach (range(0, 200_000, 500) as $ms) {
            $last = array_filter($ends, static fn (int $one): bool => $one <= $ms && $ms < $one + 2500);
            $shown = $this->shown($base, $after, $ms, null, [$alarm]);
            self::assertSame($last !== [], isset($shown['things'][0]['overlay']), "$ms ms");
            if ($last !== []) {
                $since = $ms - max($last);
                self::assertSame($since < 1000 ? ['s', $since] : ['u', $since - 1000], [$shown['things'][0]['item'], $shown['things'][0]['offset_ms']]);
            }
        }
        foreach ([['every' => 3, 'zone' => 'y'], ['every' => 3]] as $n => $where) {
            try {
                $this->shown(Make::layout([Make::zone('z', 0, 0, 100, 100, [Make::picture()])]), [OverlayDocuments::takeover(when: ['after' => $where, 'lasts_ms' => 1000])], 0, null, [$alarm]);
                self::fail('It was shown.');
            } catch (DocumentRefused $e) {
                self::assertSame(['/when/after/zone', '/when/after'][$n], $e->path, 'there is no such zone');
            }
        }
    }

    public function testAnItemThatPlaysFullScreenDoesWithoutSome(): void
    {
        $items = [Make::picture('a', durationMs: 5000), ['overlays' => ['without' => ['mark', 'strip']]] + Make::picture('b', durationMs: 5000)];
        $overlays = [OverlayDocuments::mark(), OverlayDocuments::strip(room: 'squeeze'), OverlayDocuments::notice()];
        $ids = fn (array $layout, int $ms): array => array_column($this->shown($layout, $overlays, $ms)['things'], 'overlay');
        $full = Make::layout([Make::zone('z', 0, 0, 1920, 1080, $items)]);
        self::assertSame([['strip', 'notice', 'mark'], ['notice'], ['strip', 'notice', 'mark']], [$ids($full, 4999), $ids($full, 5000), $ids($full, 10_000)]);
        self::assertSame(['strip', 'notice', 'mark'], $ids(Make::layout([Make::zone('z', 0, 0, 1919, 1080, $items)]), 5000), 'not in a part of the canvas');
    }

    /** One text for each language takes turns from the start of the occurrence; a notice is as high as what it says. */
    public function testWordsAreToldInTheirLanguageAndOverRows(): void
    {
        $when = ['bookings' => [['start' => '1970-01-01T00:00:02Z', 'end' => '1970-01-02T00:00:00Z']]];
        $texts = ['text' => ['en' => 'Late boats', 'pt' => 'Barcos'], 'turn_ms' => 3000, 'when' => $when];
        $said = fn (int $ms, ?Speaking $speaking = null): string => $this->shown(Make::layout([]), [$texts + OverlayDocuments::strip()], $ms, speaking: $speaking)['things'][0]['text'];
        self::assertSame(['Late boats', 'Barcos', 'Late boats', 'Barcos'], [$said(2000), $said(5000), $said(8000), $said(2000, new Speaking(languages: ['pt']))]);
        // 20 px a letter: "The lift is out of order" is 480 px; in lines of 240 it is "The lift is", "out of order".
        $notice = OverlayDocuments::notice('top-left', 280 / 1920, padding: 20 / 1080, plate: '#000000');
        self::assertSame(['notice', 54, 54, 280, 136], self::rects($this->shown(Make::layout([]), [$notice], 0))[0]);
        $moving = OverlayDocuments::notice('bottom', 0.5, moves: 'to-right', speed_px_s: 60);
        self::assertSame([['notice', 0, 1032, 1920, 48], -420], [self::rects($shown = $this->shown(Make::layout([]), [$moving], 1000))[0], $shown['things'][0]['from_px']]);
        $rows = ['text' => '{to} in {n, number} min', 'message' => true, 'rows' => ['source' => 's'], 'separator' => ' / '] + OverlayDocuments::strip();
        $told = $this->shown(Make::layout([]), [$rows], 0, rows: [['to' => 'Tolm', 'n' => 5], ['to' => 'Vennick', 'n' => 40]]);
        self::assertSame(['Tolm in 5 min / Vennick in 40 min', 20 * 33], [$told['things'][0]['text'], $told['things'][0]['length_px']]);
    }

    /** What is worked out once for each span says the same as each instant by itself, which an item that does without something asks for. */
    public function testSpansAnswerAsEachInstantDoes(): void
    {
        $random = Make::random(161);
        $daily = static fn (string $from, string $to): array => ['bookings' => [['start' => "2026-10-01T$from", 'end' => "2026-10-01T$to", 'rrule' => 'FREQ=DAILY']]];
        $overlays = [
            OverlayDocuments::mark(when: $daily('20:00:00', '20:00:30')),
            OverlayDocuments::strip(room: 'squeeze', when: $daily('00:15:00', '02:30:00')),
            OverlayDocuments::strip('left', 0.1, id: 'side', text: ['en' => 'One', 'pt' => 'Outro'], when: $daily('01:00:00', '23:00:00')),
            OverlayDocuments::notice(text: ['en' => 'The lift is out of order until half past ten', 'pt' => 'Avariado'], width: 0.2, when: $daily('02:00:00', '03:00:00')),
            OverlayDocuments::takeover(when: $daily('02:29:00', '02:31:00')),
        ];
        $alarm = Make::layout([self::text('t', 0, 0, 100, 50)], 1920, 1080, 'alarm');
        $base = static fn (array $more): array => Make::layout([Make::zone('z', 0, 0, 1920, 1080, [Make::picture('a', durationMs: 7000), $more + Make::picture('b', durationMs: 3000)])]);
        $from = Instant::parse('2026-10-24T00:00:00Z')->ms;
        foreach (range(1, 150) as $n) {
            // Most of them where something begins or ends.
            $ms = $n % 3 === 0 ? $from + $random->getInt(0, 3 * 86_400_000) : $from + 86_400_000 * $random->getInt(0, 2) + 1000 * $random->getInt(0, 3 * 3600);
            self::assertSame(
                $this->shown($base(['overlays' => ['without' => ['none']]]), $overlays, $ms, null, [$alarm]),
                $this->shown($base([]), $overlays, $ms, null, [$alarm]),
                (string) Instant::ofMs($ms),
            );
        }
    }

    public function testNamesThatMeanNothingAreRefusedWhereTheyStand(): void
    {
        $wrong = [
            '/plays/layout' => OverlayDocuments::takeover(),
            '/plays/media' => ['plays' => ['media' => 'none']] + OverlayDocuments::takeover(),
            '/style/color' => ['style' => ['family' => Typewriter::FAMILY, 'size_px' => 20, 'color' => '@sea']] + OverlayDocuments::notice(),
            '/media/mark' => ['media' => ['mark' => 'logo']] + OverlayDocuments::mark(),
            '/ground' => ['ground' => '@sea'] + OverlayDocuments::strip(),
            '/plate' => ['plate' => '@sea'] + OverlayDocuments::notice(),
            '/when/after' => ['when' => ['after' => ['every' => 2], 'lasts_ms' => 1000]] + OverlayDocuments::takeover(plays: ['media' => 'siren']),
            '/style/family' => ['style' => ['family' => 'Unknown', 'size_px' => 20]] + OverlayDocuments::strip(),
            '/thickness' => ['thickness' => 1, 'room' => 'squeeze'] + OverlayDocuments::strip(),
        ];
        foreach ($wrong as $path => $overlay) {
            try {
                $this->shown(Make::layout([]), [$overlay], 0);
                self::fail("$path was shown.");
            } catch (Refused $e) {
                self::assertSame($path, $e->path, $e->getMessage());
            }
        }
    }

    /**
     * @param array<string, mixed> $base a layout
     * @param list<array<string, mixed>> $overlays
     * @param list<array<string, mixed>> $with documents that refs mean
     * @param list<array<string, mixed>> $rows of the source "s"
     * @return array<string, mixed>
     */
    private function shown(array $base, array $overlays, int $ms, ?Size $canvas = null, array $with = [], ?Speaking $speaking = null, array $rows = [], ?Holes $holes = null): array
    {
        $around = (new Surroundings('UTC', new Typewriter(), speaking: $speaking ?? new Speaking()))->fed(Make::fed($rows));
        $media = ['siren' => Media::of('siren.png', Size::px(800, 800), null, 'siren'), 'frame' => Media::of('frame.png', Size::px(300, 100), null, 'frame')];
        $composer = Composer::over(Library::of($with, $media), $around);
        $layout = $composer->layout(Layout::fromArray($base));
        $overlaid = Overlaid::of(Programme::endless($layout), Overlays::of(...array_map(Overlay::fromArray(...), $overlays)), $composer, $canvas ?? $layout->canvas, $holes);
        $overlaid->check();

        return (array) json_decode((string) json_encode($overlaid->at($ms)->toArray()), true);
    }

    /** @return array<string, mixed> */
    private static function text(string $id, int $x, int $y, int $width, int $height): array
    {
        return ['id' => $id, 'kind' => 'text', 'rect' => Rect::at($x, $y, $width, $height)->toArray(), 'text' => 'Hello', 'style' => ['family' => Typewriter::FAMILY, 'size_px' => 40]];
    }

    /**
     * @param array<string, mixed> $shown
     * @return list<non-empty-list<mixed>> id, x, y, width, height
     */
    private static function rects(array $shown): array
    {
        return array_map(static fn (array $one): array => [$one['element'] ?? $one['overlay'], ...array_values($one['rect'])], array_values($shown['things']));
    }
}
