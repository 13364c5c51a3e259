<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Overlay\RandomOverlaid;
use UpperPane\Tests\Core\Typewriter;

/** What stands on the stage of players, composer and small pictures (web/src/pane/stage.ts) lies, and says, what the core says. */
final class DrawnTest extends TestCase
{
    public function testEveryPartLiesWhereTheCoreShowsIt(): void
    {
        $random = Make::random(77);
        $asked = [];
        for ($i = 0; $i < 40; $i++) {
            $layout = Make::composed(Make::randomLayout($random));
            $anchor = $random->getInt(0, 1) * 1_790_000_000_000;
            $asked[] = [Make::runSheet($layout, $anchor), Make::shownAt($layout, $anchor), self::instants($random, $anchor - 9000, $anchor + 90_000, 25)];
        }
        self::assertDrawn($asked);
    }

    public function testWhereItemsComeAndGo(): void
    {
        $random = Make::random(80);
        $surroundings = new Surroundings('Europe/Lisbon');
        $from = Instant::parse('2026-10-24T00:00:00Z')->ms;
        $asked = [];
        for ($i = 0; $i < 12; $i++) {
            $layout = Make::composed(Make::comingAndGoing($random));
            $sheet = Make::runSheet($layout, 0, $surroundings, $from, $from + 2 * 86_400_000);
            $asked[] = [$sheet, Make::shownAt($layout, 0, $surroundings), self::instants($random, $from + 60_000, $from + 2 * 86_400_000, 12)];
        }
        self::assertDrawn($asked);
    }

    public function testClocksRunningTextAndFillingShapesGoOnAsInTheCore(): void
    {
        $random = Make::random(79);
        $surroundings = new Surroundings('Europe/Lisbon', new Typewriter());
        $asked = [];
        for ($i = 0; $i < 30; $i++) {
            $inner = Make::livelyLayout($random);
            $layout = $i % 3 > 0 ? Make::composed($inner) : Make::composed(Make::layout([Make::zone('o', 0, 0, 640, 360, [
                ['id' => 'i', 'layout' => $inner, 'duration_ms' => 9000], Make::picture('p', durationMs: 3000),
            ])]));
            // Around the night on which Lisbon's clocks go back.
            $instants = self::instants($random, 1_792_800_000_000, 1_792_980_000_000, 12);
            $asked[] = [Make::runSheet($layout, 0, $surroundings), Make::shownAt($layout, 0, $surroundings), $instants];
        }
        self::assertDrawn($asked);
    }

    public function testWhereRowsComeAndGo(): void
    {
        $random = Make::random(82);
        $from = Instant::parse('2026-06-01T00:00:00Z')->ms;
        $asked = [];
        for ($i = 0; $i < 30; $i++) {
            $surroundings = (new Surroundings('Europe/Lisbon', new Typewriter(), atMs: $from))->fed(Make::randomFeeds($random, $from));
            $layout = Make::composed(Make::tellingLayout($random), null, $surroundings);
            $sheet = Make::runSheet($layout, 0, $surroundings, $from - 1000, $from + 200_000);
            $asked[] = [$sheet, Make::shownAt($layout, 0, $surroundings), self::instants($random, $from, $from + 180_000, 20)];
        }
        self::assertDrawn($asked);
    }

    /** Strips squeeze and leave again, windows open, takeovers hide: what lies below goes on as if nothing had been. */
    public function testWhatLiesAbove(): void
    {
        $random = Make::random(1605);
        $from = Instant::parse('2026-10-24T00:00:00Z')->ms;
        $asked = [];
        for ($i = 0; $i < 30; $i++) {
            $made = RandomOverlaid::of($random, $i % 3 > 0);
            if ($made === null) {
                continue;
            }
            [$programme, $around] = $made;
            $to = $from + 2 * 86_400_000;
            $asked[] = [RunSheet::of($programme, $around, $from, $to), ShownAt::of($programme, $around), self::instants($random, $from + 60_000, $to, 20)];
        }
        self::assertDrawn($asked);
    }

    /** @return list<int> not one after the other: a hand jumps to and fro */
    private static function instants(\Random\Randomizer $random, int $from, int $to, int $count): array
    {
        return array_map(static fn (): int => $random->getInt($from, $to), range(1, $count));
    }

    /** @param list<array{array<string, mixed>, ShownAt, list<int>}> $asked */
    private static function assertDrawn(array $asked): void
    {
        $found = Scene::of('drawn.ts', 'drawn', array_map(static fn (array $one): array => [$one[0], $one[2]], $asked));
        $compared = 0;
        foreach ($asked as $i => [, $shown, $instants]) {
            foreach ($instants as $n => $at) {
                $want = json_decode((string) json_encode($shown->at($at)->toArray()['things']), true);
                $parts = $found[$i][$n];
                $where = "sheet $i at $at";
                self::assertSame(array_map(self::named(...), $want), array_map(self::named(...), $parts), $where);
                foreach ($want as $place => $thing) {
                    $part = $parts[$place];
                    $what = "$where: " . json_encode($thing);
                    foreach (['rect', 'drawn'] as $box) {
                        foreach ($thing[$box] as $side => $px) {
                            self::assertEqualsWithDelta($px, $part[$box][$side], 0.02, "$box $side of $what");
                        }
                    }
                    self::assertEqualsWithDelta($thing['opacity'] ?? 1.0, $part['opacity'], 0.0001, $what);
                    if (isset($thing['text'])) {
                        self::assertSame($thing['text'], $part['text'], $what);
                    }
                    if (isset($thing['local_ms'])) {
                        [, $minutes] = array_map(static fn (string $turned): float => (float) substr($turned, strlen('rotate(')), $part['hands']);
                        self::assertEqualsWithDelta(intdiv($thing['local_ms'], 1000) % 3600 / 10, $minutes, 1e-6, $what);
                    }
                    $length = $thing['media']['length_ms'] ?? null;
                    if ($length !== null) {
                        // Within one frame of 25 in a second; its last picture is held behind its end.
                        self::assertEqualsWithDelta(min($thing['offset_ms'] ?? 0, $length - 40), $part['into'], 40, $what);
                    }
                    $compared++;
                }
            }
        }
        self::assertGreaterThan(300, $compared);
    }

    /** @param array<string, mixed> $thing */
    private static function named(array $thing): string
    {
        return implode(' ', [$thing['kind'], $thing['element'], $thing['item'] ?? '']);
    }
}
