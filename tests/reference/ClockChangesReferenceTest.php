<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Units\WallClock;

/**
 * The changes of the clocks themselves, against `zdump -v` (Debian libc-bin) on the machine's own copy of the tz database, which is
 * not the one that PHP brings.
 */
final class ClockChangesReferenceTest extends TestCase
{
    private const FROM = 2015;
    private const TO = 2036;

    #[DataProvider('zones')]
    public function testTheClockIsPutOnAndBackWhenZdumpSaysSo(string $zone, int $changes): void
    {
        $clock = WallClock::in($zone);
        [$from, $to] = [(int) gmmktime(0, 0, 0, 1, 1, self::FROM), (int) gmmktime(0, 0, 0, 1, 1, self::TO)];
        $told = self::zdump($zone, $from, $to);
        self::assertCount($changes, $told);
        self::assertSame(array_keys($told), $clock->changes($from, $to));
        foreach ($told as $utc => [$before, $after]) {
            self::assertSame([$utc - 1 + $before, $utc + $after], [$clock->local($utc - 1), $clock->local($utc)], "$zone " . gmdate('c', $utc));
            // What is left out does not exist, and comes as much later; what comes twice is meant the first time.
            $inside = $utc + intdiv($before + $after, 2);
            self::assertSame($after > $before ? null : $inside - $before, $clock->utc($inside));
            self::assertSame($inside - $before, $clock->utcOrBefore($inside));
            self::assertCount($after > $before ? 0 : 2, $clock->readings($inside));
        }
    }

    /** @return iterable<string, array{string, int}> */
    public static function zones(): iterable
    {
        foreach (['Europe/Lisbon', 'Atlantic/Azores', 'America/New_York', 'Australia/Lord_Howe', 'Pacific/Chatham'] as $zone) {
            yield $zone => [$zone, 2 * (self::TO - self::FROM)];
        }
        yield 'Asia/Kolkata has none' => ['Asia/Kolkata', 0];
    }

    /** @return array<int, array{int, int}> s ahead of UTC before and after, by the instant of the change */
    private static function zdump(string $zone, int $from, int $to): array
    {
        $found = [];
        $last = null;
        foreach (explode("\n", (string) shell_exec(sprintf('zdump -v -c %d,%d %s', self::FROM, self::TO, escapeshellarg($zone)))) as $line) {
            if (preg_match('/^\S+\s+(\w+ \w+ +\d+ [\d:]+ \d+) UTC? = .* gmtoff=(-?\d+)$/', $line, $m) !== 1) {
                continue;
            }
            [$utc, $offset] = [(int) strtotime("$m[1] UTC"), (int) $m[2]];
            if ($last !== null && $last[0] + 1 === $utc && $last[1] !== $offset && $utc >= $from && $utc < $to) {
                $found[$utc] = [$last[1], $offset];
            }
            $last = [$utc, $offset];
        }

        return $found;
    }
}
