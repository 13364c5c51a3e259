<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use UpperPane\App\Storage\Prune;
use UpperPane\Core\Playback\Report\Batch;
use UpperPane\Core\Playback\Report\Seen;
use UpperPane\Core\Units\WallClock;

/** What was really seen on each display, by day and thing: added up from what players say, and kept for a while. */
final class SeenThings
{
    /** What is said of times further ahead comes from a clock that is wrong. */
    private const AHEAD_MS = 3_600_000;
    private const DAY_MS = 86_400_000;
    private const ROWS = 500;
    /** No display shows more things in a day; whoever says so means something else. */
    public const MOST_A_DAY = 5000;

    /** @var array<string, WallClock> */
    private array $clocks = [];

    /** @var array<string, array{string, string, int, Seen}> display, day, output and sum, by the three and the thing */
    private array $sums = [];

    public function __construct(private readonly Connection $connection, private readonly ClockInterface $clock)
    {
    }

    /**
     * @param array<string, mixed> $row `display_id` and `timezone` of a player's display
     * @param array<int, list<Batch>> $batches by output
     */
    public function take(array $row, array $batches): void
    {
        $nowMs = 1000 * $this->clock->now()->getTimestamp();
        $display = is_string($row['display_id']) ? $row['display_id'] : '';
        $timezone = is_string($row['timezone']) ? $row['timezone'] : 'UTC';
        foreach ($batches as $output => $those) {
            $clock = $this->clocks[$timezone] ??= WallClock::in($timezone);
            foreach ($those as $batch) {
                foreach ($batch->seen as $seen) {
                    if ($seen->firstMs > $nowMs + self::AHEAD_MS || $seen->firstMs < $nowMs - Prune::SEEN_DAYS * self::DAY_MS) {
                        continue;
                    }
                    $day = $seen->day($clock);
                    $key = "$display $day $output $seen->id";
                    $sum = isset($this->sums[$key]) ? $this->sums[$key][3]->and($seen) : $seen;
                    $this->sums[$key] = [$display, $day, $output, $sum];
                }
            }
        }
    }

    /** Adds what was taken to what is known, in the transaction that is open. */
    public function write(): void
    {
        [$sums, $this->sums] = [$this->sums, []];
        // Always in the same order, so that nobody waits for somebody who waits for him.
        ksort($sums);
        $sums = $this->within($sums);
        foreach (array_chunk($sums, self::ROWS) as $chunk) {
            $values = [];
            foreach ($chunk as [$display, $day, $output, $seen]) {
                array_push(
                    $values,
                    $display,
                    $day,
                    $output,
                    hash('xxh128', $seen->id),
                    $seen->id,
                    $seen->element,
                    $seen->item,
                    $seen->media,
                    $seen->firstMs,
                    $seen->lastMs,
                    $seen->times,
                    $seen->ms,
                    $seen->missed,
                    $seen->missedMs,
                );
            }
            $this->connection->executeStatement(
                'INSERT INTO seen_thing (display_id, day, output, thing, part, element, item, media, first_ms, last_ms, times, ms, missed, missed_ms) VALUES '
                . implode(', ', array_fill(0, count($chunk), '(' . implode(', ', array_fill(0, 14, '?')) . ')'))
                . ' ON DUPLICATE KEY UPDATE first_ms = LEAST(first_ms, VALUES(first_ms)), last_ms = GREATEST(last_ms, VALUES(last_ms)), media = COALESCE(VALUES(media), media),'
                . ' times = times + VALUES(times), ms = ms + VALUES(ms), missed = missed + VALUES(missed), missed_ms = missed_ms + VALUES(missed_ms)',
                $values,
            );
        }
    }

    /**
     * Without those of a display and day of which more than enough is known already.
     *
     * @param array<string, array{string, string, int, Seen}> $sums
     * @return array<string, array{string, string, int, Seen}>
     */
    private function within(array $sums): array
    {
        if ($sums === []) {
            return [];
        }
        $known = $this->connection->fetchAllKeyValue(
            "SELECT CONCAT(display_id, ' ', day), COUNT(*) FROM seen_thing WHERE display_id IN (?) AND day IN (?) GROUP BY display_id, day",
            [array_unique(array_column($sums, 0)), array_unique(array_column($sums, 1))],
            [ArrayParameterType::STRING, ArrayParameterType::STRING],
        );
        foreach ($sums as $key => [$display, $day]) {
            $count = self::int($known["$display $day"] ?? 0);
            $known["$display $day"] = $count + 1;
            if ($count >= self::MOST_A_DAY) {
                unset($sums[$key]);
            }
        }

        return $sums;
    }

    /** @return list<array{day: string, things: int, times: int, missed: int}> days of which anything is known, the last first */
    public function days(string $display): array
    {
        $rows = $this->connection->fetchAllAssociative(
            'SELECT day, COUNT(DISTINCT thing) AS things, SUM(times) AS times, SUM(missed) AS missed FROM seen_thing WHERE display_id = ? GROUP BY day ORDER BY day DESC',
            [$display],
        );

        return array_map(static fn (array $row): array => [
            'day' => is_string($row['day']) ? $row['day'] : '',
            'things' => self::int($row['things']),
            'times' => self::int($row['times']),
            'missed' => self::int($row['missed']),
        ], $rows);
    }

    /** @return list<Seen> of one day, of all outputs together: by element, in the order in which they were seen first */
    public function on(string $display, string $day): array
    {
        $rows = $this->connection->fetchAllAssociative('SELECT * FROM seen_thing WHERE display_id = ? AND day = ? ORDER BY element, first_ms, part', [$display, $day]);
        $text = static fn (mixed $value): ?string => is_string($value) ? $value : null;
        $things = [];
        foreach ($rows as $row) {
            $id = $text($row['part']) ?? '';
            $one = new Seen(
                $id,
                $text($row['element']) ?? '',
                $text($row['item']),
                $text($row['media']),
                self::int($row['first_ms']),
                self::int($row['last_ms']),
                self::int($row['times']),
                self::int($row['ms']),
                self::int($row['missed']),
                self::int($row['missed_ms']),
            );
            $things[$id] = isset($things[$id]) ? $things[$id]->and($one) : $one;
        }

        return array_values($things);
    }

    private static function int(mixed $value): int
    {
        return is_numeric($value) ? (int) $value : 0;
    }
}
