<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Playback\LaidOver;
use UpperPane\Core\Playback\Overlaid;
use UpperPane\Core\Playback\OverlayChecks;
use UpperPane\Core\Playback\OverlayWords;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\ShownPart;
use UpperPane\Core\Playback\Thing;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Overlay\OverlayDocuments;
use UpperPane\Tests\Core\Overlay\RandomOverlaid;
use UpperPane\Tests\Core\Typewriter;

/** What overlays cover, what falls on what, what is never seen or never ends, and how their words are read. */
final class OverlayChecksTest extends TestCase
{
    private const AT = '2026-06-01T08:00:00Z';

    public function testWordsUnderAnOverlayAreFoundWithTheirShareAndFromWhen(): void
    {
        $shape = ['id' => 's', 'kind' => 'shape', 'rect' => Rect::at(0, 1000, 99, 50)->toArray(), 'shape' => 'rectangle', 'fill' => '#ffffff'];
        $texts = [self::text('price', 100, 1000, 400, 50), self::text('place', 1500, 950, 400, 100), self::text('far', 0, 0, 100, 50), $shape];
        $from = ['bookings' => [['start' => '2026-06-01T20:00:00', 'end' => '2026-06-01T21:00:00']]];
        $found = $this->found($texts, [OverlayDocuments::strip(), OverlayDocuments::mark('bottom-right', 0.1, 0.0, when: $from)]);
        self::assertSame([
            ['overlay.covers', 'warning', ['price', 'strip'], ['share' => 1.0, 'from' => self::AT]],
            ['overlay.covers', 'warning', ['place', 'strip'], ['share' => 0.78, 'from' => self::AT]],
            ['overlay.covers', 'warning', ['place', 'mark'], ['share' => 0.663, 'from' => '2026-06-01T19:00:00Z']],
            ['overlay.crowded', 'warning', ['strip', 'mark'], ['from' => '2026-06-01T19:00:00Z']],
        ], $found);
        self::assertSame([], $this->found([self::text('price', 100, 800, 400, 50)], [OverlayDocuments::strip()]));
        self::assertSame([], $this->found([self::text('price', 100, 1000, 400, 50)], [OverlayDocuments::strip(room: 'squeeze')]), 'squeezed, it lies above the strip');
        self::assertSame([], $this->found([self::text('price', 1600, 1000, 300, 50)], [OverlayDocuments::mark(opacity: 0)]), 'what is not seen covers nothing');
        $tomorrow = ['bookings' => [['start' => '2026-06-02T09:00:01', 'end' => '2026-06-02T10:00:00']]];
        self::assertSame([], $this->found([self::text('price', 100, 1000, 400, 50)], [OverlayDocuments::strip(when: $tomorrow)]), 'later than in 24 hours');
    }

    /** What comes and goes in a zone is covered from when it does so while the overlay is there; a takeover meanwhile hides both. */
    public function testWhatComesInAZoneIsCoveredFromThen(): void
    {
        $sign = Make::layout([self::text('words', 0, 0, 1920, 1080)], 1920, 1080, 'sign');
        $zone = Make::zone('z', 0, 540, 1920, 540, [Make::picture('a', durationMs: 40_000), ['id' => 'b', 'layout' => $sign, 'duration_ms' => 20_000]]);
        $at = '2026-06-01T08:00:40Z';
        self::assertSame([['overlay.covers', 'warning', ['z/words', 'strip'], ['share' => 0.2, 'from' => $at]]], $this->found([$zone], [OverlayDocuments::strip()]));
        $now = ['bookings' => [['start' => '2026-06-01T07:00:00Z', 'end' => '2026-06-01T08:05:00Z']]];
        $alarm = Make::layout([self::text('words', 0, 900, 1920, 180)], 1920, 1080, 'alarm');
        $found = $this->found([$zone], [OverlayDocuments::strip(), OverlayDocuments::takeover(when: $now)], [$alarm]);
        self::assertSame([['overlay.covers', '2026-06-01T08:05:40Z'], ['overlay.hidden', null]], array_map(static fn (array $one): array => [$one[0], $one[3]['from'] ?? null], $found));
    }

    public function testWhatIsNeverSeenOrNeverEndsIsSaid(): void
    {
        $on = static fn (string $start, string $end, ?string $rule = null): array => ['bookings' => [['start' => $start, 'end' => $end] + ($rule === null ? [] : ['rrule' => $rule])]];
        $alarm = Make::layout([], 10, 10, 'alarm');
        $codes = fn (array ...$overlays): array => array_map(static fn (array $one): string => "$one[0] " . implode(' ', $one[2]), $this->found([], array_values($overlays), [$alarm]));
        $mark = static fn (array $when): array => OverlayDocuments::mark(when: $when);
        $takeover = static fn (mixed $when): array => OverlayDocuments::takeover(when: $when);
        self::assertSame(['overlay.never mark'], $codes($mark($on('2026-05-01T08:00:00', '2026-05-01T09:00:00'))));
        self::assertSame(['overlay.never mark'], $codes($mark($on('2026-05-01T08:00:00', '2026-05-01T09:00:00', 'FREQ=DAILY;COUNT=31'))));
        self::assertSame([], $codes($mark($on('2026-05-01T08:00:00', '2026-05-01T10:00:00', 'FREQ=DAILY;COUNT=32'))), 'the last is under way');
        self::assertSame([], $codes($mark($on('2031-05-01T08:00:00', '2031-05-01T09:00:00'))), 'however far ahead');
        self::assertSame(['overlay.never mark'], $codes($mark($on('2026-05-01T08:00:00', '2026-05-01T09:00:00', 'FREQ=DAILY') + ['until' => '2026-06-01T07:00:00'])));

        $hours = $on('2026-06-01T10:00:00', '2026-06-01T12:00:00', 'FREQ=DAILY;COUNT=80');
        self::assertSame(['overlay.never mark'], $codes($mark($on('2026-06-02T10:30:00', '2026-06-02T11:30:00', 'FREQ=WEEKLY;COUNT=9')), $takeover($hours)));
        self::assertSame(['overlay.hidden mark'], $codes($mark($on('2026-06-02T10:30:00', '2026-06-02T12:30:00', 'FREQ=WEEKLY;COUNT=9')), $takeover($hours)));
        self::assertSame([], $codes($mark($on('2026-06-02T12:00:00', '2026-06-02T13:00:00', 'FREQ=WEEKLY;COUNT=9')), $takeover($hours)));
        $higher = ['id' => 'high', 'level' => 1, 'when' => $on('2026-06-01T11:00:00', '2026-06-01T12:00:00')] + OverlayDocuments::takeover();
        self::assertSame(['overlay.hidden takeover'], $codes($takeover($hours), $higher));

        self::assertSame(['overlay.end takeover'], $codes($takeover('always')));
        self::assertSame(['overlay.hole window'], $codes(['plays' => ['layout' => 'alarm']] + OverlayDocuments::window()), 'a window without an opening');
        self::assertSame(['overlay.end takeover'], $codes($takeover($on('2026-06-01T10:00:00', '2026-06-01T12:00:00', 'FREQ=DAILY'))));
        self::assertSame(['overlay.end takeover'], $codes($takeover(['after' => ['every' => 3], 'lasts_ms' => 1000])));
        self::assertSame([], $codes($takeover(['after' => ['every' => 3], 'lasts_ms' => 1000, 'until' => '2026-07-01T00:00:00'])));
        self::assertSame([], $codes($takeover($on('2026-06-01T10:00:00', '2026-06-01T12:00:00', 'FREQ=DAILY') + ['until' => '2026-07-01T00:00:00'])));
    }

    /** On the display of Make, read from 10 m: a capital has to be 46.6 mm high there. */
    public function testWordsAreJudgedAsThoseOfALayoutAre(): void
    {
        $style = static fn (int $px, string $colour): array => ['style' => ['family' => Typewriter::FAMILY, 'size_px' => $px, 'color' => $colour]];
        $codes = fn (array $base, array $overlay): array => array_map(static fn (Finding $one): string => "$one->code " . implode(' ', $one->elements), $this->words(array_values($base), [$overlay]));
        $large = static fn (string $colour): array => $style(160, $colour);
        self::assertSame([], $codes([], $large('#ffffff') + OverlayDocuments::strip(thickness: 0.2)));
        self::assertSame(['text.small strip'], $codes([], $style(40, '#ffffff') + OverlayDocuments::strip()));
        self::assertSame(['text.overflow strip'], $codes([], $large('#ffffff') + OverlayDocuments::strip(thickness: 0.1)));
        self::assertSame(['text.contrast strip'], $codes([], $large('#222222') + OverlayDocuments::strip(thickness: 0.2)));
        self::assertSame(['text.contrast strip'], $codes([], $large('#222222') + OverlayDocuments::strip('left', 0.2)));
        $ground = static fn (string $fill): array => [['id' => 's', 'kind' => 'shape', 'rect' => ['x' => 0, 'y' => 0, 'width' => 1920, 'height' => 1080], 'shape' => 'rectangle', 'fill' => $fill]];
        $bare = ['ground' => null] + $large('#ffffff') + OverlayDocuments::strip(thickness: 0.2);
        self::assertSame([[], ['text.contrast strip']], [$codes($ground('#14665b'), $bare), $codes($ground('#f5e6b8'), $bare)], 'against what plays below');
        self::assertSame(['ticker.fast strip'], $codes([], ['speed_px_s' => 2000] + $large('#ffffff') + OverlayDocuments::strip(thickness: 0.2)));
        $notice = $large('#ffffff') + OverlayDocuments::notice('middle', 0.8, text: 'Lift out of order', plate: '#a4262c', padding: 0.02);
        self::assertSame([], $codes($ground('#f5e6b8'), $notice), 'the plate keeps it apart');
        self::assertSame(['text.contrast notice'], $codes($ground('#f5e6b8'), ['plate' => null] + $notice));
        self::assertSame(['text.overflow notice'], $codes([], ['text' => str_repeat('Lift ', 40)] + $notice));
    }

    /** Letters that run along a seam of a wall of 3 x 2 panels, with 3 px hidden between its rows, and the thickness that clears them. */
    public function testLettersOnASeamAreFoundWithWhatClearsThem(): void
    {
        $wall = Display::fromArray(['id' => 'w', 'name' => 'Wall'] + Make::wall());
        $seam = 1080;
        $style = ['style' => ['family' => Typewriter::FAMILY, 'size_px' => 200, 'color' => '#ffffff', 'line_height' => 1, 'valign' => 'middle']];
        $height = $wall->raster()->height;
        $over = $style + OverlayDocuments::strip('top', 2 * $seam / $height);
        $found = $this->words([], [$over], $wall);
        self::assertSame(['seam.crossed'], array_column(array_map(static fn (Finding $one): array => [$one->code], $found), 0), json_encode(array_column($found, 'message')) ?: '');
        $clear = $found[0]->measure['thickness'];
        self::assertIsFloat($clear);
        self::assertSame([], $this->words([], [['thickness' => $clear] + $over], $wall));
        $notice = $style + OverlayDocuments::notice('middle', 0.3, text: 'Lift');
        self::assertContains('seam.crossed', array_map(static fn (Finding $one): string => $one->code, $this->words([], [$notice], $wall)));
    }

    /** A notice is as high as its lines, whatever is rounded of them and of its padding. */
    public function testWhatIsRoundedIsNoLackOfRoom(): void
    {
        $random = Make::random(739);
        for ($i = 0; $i < Make::rounds(60); $i++) {
            $style = ['style' => ['family' => Typewriter::FAMILY, 'size_px' => $random->getInt(80, 1600) / 10, 'line_height' => $random->getInt(100, 150) / 100]];
            $padding = $random->getInt(0, 1) * $random->getInt(1, 400) / 10_000;
            $found = $this->words([], [$style + OverlayDocuments::notice('middle', 0.9, text: 'The lift is out of order', padding: $padding)]);
            self::assertNotContains('text.overflow', array_map(static fn (Finding $one): string => $one->code, $found), json_encode([$style, $padding], JSON_THROW_ON_ERROR));
        }
    }

    /** What is found without looking at every instant is what is seen at any: as early, and as much. */
    public function testNothingThatIsCoveredAtAnyInstantIsMissed(): void
    {
        $random = Make::random(1666);
        $from = Instant::parse('2026-10-24T06:00:00Z')->ms;
        $seen = 0;
        for ($i = 0; $i < Make::rounds(15); $i++) {
            $words = [];
            foreach (['w0', 'w1'] as $id) {
                $words[] = self::text($id, $random->getInt(0, 900), $random->getInt(0, 600), 300, 80);
            }
            $base = Make::comingAndGoing($random);
            $base['elements'] = [...$base['elements'], ...$words];
            $overlays = array_filter(OverlayDocuments::random($random), static fn (array $one): bool => !isset($one['when']['after']) && $one['kind'] !== 'window');
            try {
                $overlaid = RandomOverlaid::over(['id' => 'base'] + $base, array_values($overlays), [['id' => 'alarm'] + Make::randomLayout($random, 1)], 'Europe/Lisbon');
                $found = OverlayChecks::run($overlaid, $overlaid->overlays, WallClock::in('Europe/Lisbon'), $from)->all;
            } catch (DocumentRefused) {
                continue;
            }
            $covers = [];
            foreach (array_filter($found, static fn (Finding $one): bool => $one->code === 'overlay.covers') as $one) {
                $covers[implode(' ', $one->elements)] = $one->measure;
            }
            for ($n = 0; $n < 80; $n++) {
                $at = $random->getInt($from, $from + 86_399_999);
                foreach (self::coveredAt($overlaid, $at) as $both => $share) {
                    self::assertArrayHasKey($both, $covers, "round $i at " . Instant::ofMs($at));
                    self::assertGreaterThanOrEqual($share - 0.001, $covers[$both]['share']);
                    self::assertLessThanOrEqual($at, Instant::parse((string) $covers[$both]['from'])->ms);
                    $seen++;
                }
            }
        }
        self::assertGreaterThan(200, $seen);
    }

    /** @return array<string, float> share of each text that each overlay covers at an instant, by “text overlay” */
    private static function coveredAt(Overlaid $overlaid, int $at): array
    {
        $things = $overlaid->at($at)->things;
        $laid = array_filter($things, static fn (Thing $one): bool => $one instanceof LaidOver);
        $shares = [];
        foreach ($things as $thing) {
            if (!$thing instanceof ShownPart || $thing->part->kind !== 'text' || $thing->opacity <= 0.0) {
                continue;
            }
            $rect = $thing->part->rect;
            foreach ($laid as $above) {
                $common = $rect->clippedTo(Box::ofRect($above->rect));
                $shares["{$thing->part->element} $above->overlay"] = $common->width * $common->height / max(1e-9, $rect->width * $rect->height);
            }
        }

        return array_filter($shares, static fn (float $share): bool => $share > 0.001);
    }

    /**
     * @param list<array<string, mixed>> $elements
     * @param list<array<string, mixed>> $overlays
     * @param list<array<string, mixed>> $with
     * @return list<array{string, string, list<string>, array<string, mixed>}>
     */
    private function found(array $elements, array $overlays, array $with = []): array
    {
        [$overlaid, $all] = $this->overlaid($elements, $overlays, $with, null);
        $found = OverlayChecks::run($overlaid, $all, WallClock::in('Europe/Lisbon'), Instant::parse(self::AT)->ms)->all;
        foreach ($found as $one) {
            self::assertContains($one->code, array_map(static fn ($explained): string => $explained->code, OverlayChecks::explained()));
        }

        return array_map(static fn (Finding $one): array => [$one->code, $one->level->value, $one->elements, array_diff_key($one->measure, ['hidden_ms' => 1])], $found);
    }

    /**
     * @param list<array<string, mixed>> $elements
     * @param list<array<string, mixed>> $overlays
     * @return list<Finding>
     */
    private function words(array $elements, array $overlays, ?Display $display = null): array
    {
        $display ??= Display::fromArray(['id' => 'd', 'name' => 'D'] + Make::display());
        [$overlaid, $all, $composer, $layout] = $this->overlaid($elements, $overlays, [], $display);

        return (new OverlayWords($overlaid, $all, $layout, $composer, $display, WallClock::in('Europe/Lisbon')))->findings(Instant::parse(self::AT)->ms);
    }

    /**
     * @param list<array<string, mixed>> $elements
     * @param list<array<string, mixed>> $overlays
     * @param list<array<string, mixed>> $with
     * @return array{Overlaid, Overlays, Composer, Layout}
     */
    private function overlaid(array $elements, array $overlays, array $with, ?Display $display): array
    {
        $raster = $display?->raster();
        $around = (new Surroundings('Europe/Lisbon', new Typewriter()))->on($display);
        $composer = Composer::over(Library::of($with), $around);
        $layout = Layout::fromArray(Make::layout($elements, $raster->width ?? 1920, $raster->height ?? 1080));
        $all = Overlays::of(...array_map(Overlay::fromArray(...), $overlays));
        $composed = $composer->layout($layout);

        return [Overlaid::of(Programme::endless($composed, 'Europe/Lisbon'), $all, $composer, $composed->canvas), $all, $composer, $layout];
    }

    /** @return array<string, mixed> */
    private static function text(string $id, int $x, int $y, int $width, int $height): array
    {
        return ['id' => $id, 'kind' => 'text', 'rect' => Rect::at($x, $y, $width, $height)->toArray(), 'text' => 'Hello', 'style' => ['family' => Typewriter::FAMILY, 'size_px' => 40]];
    }
}
