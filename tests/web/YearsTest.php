<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Core\Make;

/** What a player holds stays the same, however long it runs. An hour and 60 releases in CI; a day and a thousand with UPPER_PANE_LONG=1. */
final class YearsTest extends TestCase
{
    /** Films that stand ready beside those that are seen (web/src/pane/pool.ts). */
    private const READY = 4;

    public function testADayFromChangeToChange(): void
    {
        $hours = getenv('UPPER_PANE_LONG') === '1' ? 24 : 1;
        $told = Scene::of('years.ts', 'aDay', ['sheets' => self::sheets(3), 'hours' => $hours, 'releases' => 0]);
        self::assertSame([0, 0], [$told['filmsLeft'], $told['elementsLeft']]);
        foreach ($told['told'] as $one) {
            self::assertGreaterThan(100 * $hours, $one['draws']);
            self::assertLessThanOrEqual(self::READY + 2 * 12, $one['films'], 'a zone shows two at the most');
            self::assertLessThan(1000, $one['elements']);
            self::assertSame(4 * $hours - 1, count($one['heaps']));
            if ($hours > 1) {
                $mean = static fn (array $some): float => array_sum($some) / count($some);
                self::assertLessThan(1.1, $mean(array_slice($one['heaps'], -4)) / $mean(array_slice($one['heaps'], 3, 4)), 'heap in the last hour against the second');
            }
        }
    }

    public function testManyReleasesInARow(): void
    {
        $releases = getenv('UPPER_PANE_LONG') === '1' ? 1000 : 60;
        $told = Scene::of('years.ts', 'manyReleases', ['sheets' => self::sheets(8), 'hours' => 0, 'releases' => $releases]);
        self::assertSame([0, 0], [$told['filmsLeft'], $told['elementsLeft']], (string) json_encode($told));
        self::assertLessThanOrEqual(self::READY + 2 * 12, $told['most']['films']);
        self::assertLessThan(1000, $told['most']['elements']);
    }

    /** @return list<array<string, mixed>> */
    private static function sheets(int $count): array
    {
        $random = Make::random(91);
        $sheets = [];
        while (count($sheets) < $count) {
            $sheet = Make::runSheet(Make::composed(Make::randomLayout($random, 1)), 1_790_000_000_000);
            if (count(array_filter($sheet['layers'], static fn (array $layer): bool => isset($layer['zone']))) > 1) {
                $sheets[] = $sheet;
            }
        }

        return $sheets;
    }
}
