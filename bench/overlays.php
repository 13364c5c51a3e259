<?php

declare(strict_types=1);

// Required by run.php: what lies above what plays.

namespace UpperPane\Bench;

use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Playback\Overlaid;
use UpperPane\Core\Playback\OverlayChecks;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Overlay\OverlayDocuments;

function benchOverlays(float $hash, FaceMetrics $faces): void
{
    $style = ['style' => ['size_px' => 40, 'color' => '#ffffff']];
    $daily = static fn (string $from, string $to): array => ['when' => ['bookings' => [['start' => "2026-05-01T$from:00", 'end' => "2026-05-01T$to:00", 'rrule' => 'FREQ=DAILY']]]];
    $overlays = Overlays::of(...array_map(Overlay::fromArray(...), [
        OverlayDocuments::mark(),
        ['id' => 'second', 'corner' => 'top-left'] + $daily('06:00', '22:00') + OverlayDocuments::mark(),
        ['room' => 'squeeze'] + $style + $daily('07:00', '23:00') + OverlayDocuments::strip(),
        $style + $daily('08:00', '10:30') + OverlayDocuments::notice(),
    ]));
    $around = (new Surroundings('Europe/Lisbon', $faces));
    $composer = Composer::over(null, $around);
    $zones = array_map(static fn (int $z): array => Make::zone("z$z", 192 * ($z % 10), 216 * intdiv($z, 10), 192, 216, array_map(
        static fn (int $i): array => Make::picture("i$z-$i", 192, 216, 5000 + 1000 * $i),
        range(0, 19),
    )), range(0, 49));
    $programme = Programme::endless($composer->layout(Layout::fromArray(Make::layout($zones))), 'Europe/Lisbon');
    $from = Instant::parse('2026-06-01T00:00:00Z')->ms;
    $bare = ShownAt::of($programme, $around);
    $overlaid = Overlaid::of($programme, $overlays, $composer, $programme->canvas());
    $step = static fn (callable $at): float => seconds(static fn (int $n): mixed => $at($from + 8_641_357 * $n), 2000);
    [$without, $with] = [$step($bare->at(...)), $step($overlaid->at(...))];
    say('ShownAt, 50 zones of 20 items, with four overlays', sprintf('%s instants a second, %.2f of without', number_format(1 / $with), $without / $with), '0.7');

    $words = array_map(static fn (int $n): array => ['id' => "t$n", 'kind' => 'text', 'rect' => Rect::at(40, 100 * $n, 900, 90)->toArray(), 'text' => 'Sailings'] + $style, range(0, 9));
    $layout = Make::layout([Make::zone('z', 960, 0, 960, 1080, array_map(static fn (int $i): array => Make::picture("i$i", 960, 1080, 7000 + 10 * $i), range(0, 19))), ...$words]);
    $programme = Programme::endless($composer->layout(Layout::fromArray($layout)), 'Europe/Lisbon');
    $day = seconds(static fn (): mixed => OverlayChecks::run(Overlaid::of($programme, $overlays, $composer, $programme->canvas()), $overlays, WallClock::in('Europe/Lisbon'), $from), 3);
    say('what four overlays cover in a day', sprintf('%.0f ms, %s x baseline', 1000 * $day, number_format($day / $hash)), 'under 200 ms');
}
