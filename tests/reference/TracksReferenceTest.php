<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Tracks;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Core\Make;

/** Divisions against the tracks that Chromium computes for the same `grid-template-columns` (CSS Grid 2), Debian's Chromium 156. */
final class TracksReferenceTest extends TestCase
{
    private const COMPUTE = <<<'JS'
        const box = document.body.appendChild(document.createElement('div'));
        return arguments[0].map(([text, length, gap]) => {
            box.style.cssText = `display:grid;width:${length}px;column-gap:${gap}px`;
            box.style.gridTemplateColumns = text;
            return box.style.gridTemplateColumns === '' ? null : getComputedStyle(box).gridTemplateColumns.split(' ').map(parseFloat);
        });
        JS;

    public function testChromiumDividesAsTheCoreDoes(): void
    {
        $random = Make::random(4);
        $cases = [];
        while (count($cases) < 400) {
            $cases[] = [$this->recipe($random), $random->getInt(40, 4000), $random->getInt(0, 2) * $random->getInt(0, 12)];
        }
        $divided = 0;
        foreach ($this->computed($cases) as $index => $sizes) {
            [$text, $length, $gap] = $cases[$index];
            self::assertNotNull($sizes, "Chromium cannot read $text, which the test wrote");
            try {
                $ours = array_column(Tracks::parse($text)->solve($length, $gap), 'size');
            } catch (Refused) {
                self::assertGreaterThan($length + 0.01, array_sum($sizes) + $gap * (count($sizes) - 1), "$text fits $length in Chromium");
                continue;
            }
            $divided++;
            self::assertCount(count($sizes), $ours, $text);
            foreach ($sizes as $i => $size) {
                self::assertEqualsWithDelta($size, $ours[$i], 1.0, sprintf('track %d of %s in %d px, gap %d: %s', $i, $text, $length, $gap, implode(' ', $sizes)));
            }
        }
        self::assertGreaterThan(200, $divided);
    }

    /** What Chromium cannot read, the core refuses; what it can and we do not build is named here. */
    public function testWhatIsNoCssIsRefused(): void
    {
        $texts = [
            '1fr 5', '-1px', '1fr,1fr', '5em5', 'minmax(1fr, 2fr)', 'minmax(1px)', 'repeat(0, 1fr)', 'repeat(-1, 1fr)', 'repeat(2)', 'repeat(2, )', 'repeat(1.5, 1fr)',
            'repeat(2, repeat(2, 1fr))', '1fr)', '(1fr', '1 fr', 'px', '%', '1fr minmax(', 'minmax(1px, )', '1fr; 2fr', '1.fr', '1..5fr', 'repeat (2, 1fr)', 'minmax (1px, 2px)', '1fr/2fr',
        ];
        foreach ($this->computed(array_map(static fn (string $text): array => [$text, 1000, 0], $texts)) as $index => $sizes) {
            self::assertNull($sizes, "Chromium reads $texts[$index]");
            try {
                Tracks::parse($texts[$index]);
                self::fail("read: $texts[$index]");
            } catch (Refused $e) {
                self::assertSame('tracks.syntax', $e->reason->value);
            }
        }
    }

    /**
     * @param list<array{string, int, int}> $cases
     * @return list<?list<float>>
     */
    private function computed(array $cases): array
    {
        $chrome = Chrome::open(400, 300);
        try {
            /** @var list<?list<float>> $computed */
            $computed = $chrome->go('data:text/html,<!doctype html><body style="margin:0">')->script(self::COMPUTE, $cases);
        } finally {
            $chrome->close();
        }

        return $computed;
    }

    private function recipe(\Random\Randomizer $random): string
    {
        $fixed = static fn (): string => $random->getInt(0, 2) === 0 ? $random->getInt(1, 300) / 10 . '%' : $random->getInt(0, 2400) / 8 . 'px';
        $share = static fn (): string => $random->getInt(1, 60) / [1, 10, 100][$random->getInt(0, 2)] . 'fr';
        $track = static fn (): string => match ($random->getInt(0, 6)) {
            0, 1 => $fixed(),
            2 => 'minmax(' . $fixed() . ', ' . $fixed() . ')',
            3 => 'minmax(' . $fixed() . ', ' . $share() . ')',
            default => $share(),
        };
        $tracks = static fn (int $most): string => implode(' ', array_map($track, range(1, $random->getInt(1, $most))));

        return match ($random->getInt(0, 3)) {
            0 => sprintf('repeat(%d, %s)', $random->getInt(1, 4), $tracks(3)),
            1 => $tracks(2) . sprintf(' repeat(%d, %s) ', $random->getInt(1, 3), $tracks(2)) . $tracks(2),
            default => $tracks(6),
        };
    }
}
