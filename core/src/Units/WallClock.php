<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

/**
 * The clock on the wall in one time zone: from the time it shows to the instant, and back.
 *
 * A time in the hour that the clocks leave out does not exist; of one that they show twice the first is meant (RFC 5545, 3.3.5).
 * Source: the tz database, as PHP brings it, from 1900 to 2200; before and behind, the first and last offset hold.
 */
final readonly class WallClock
{
    /** Clocks are put back by three hours at the most (Antarctica/Troll puts them by two). */
    private const LONGEST_CHANGE_S = 10_800;

    /**
     * @param list<int> $from Unix s from which each offset holds
     * @param list<int> $offsets s ahead of UTC
     * @param list<int> $localFrom local s from which each offset alone is meant
     */
    private function __construct(public string $timezone, private array $from, private array $offsets, private array $localFrom)
    {
    }

    /** @param string $timezone a name of the tz database; one that is unknown counts as UTC, so check it before */
    public static function in(string $timezone): self
    {
        return self::ofOffsets($timezone, UtcOffsets::between($timezone, -2_208_988_800, 7_258_118_400));
    }

    /**
     * A clock of which a file tells how it goes.
     *
     * @param non-empty-list<array{int, int}> $table from (Unix s, rising), s ahead of UTC
     */
    public static function ofOffsets(string $timezone, array $table): self
    {
        $from = [];
        $offsets = [];
        $localFrom = [];
        foreach ($table as [$since, $offset]) {
            // What is shown twice still belongs to the offset before: its last reading is the change as that offset tells it.
            $before = $offsets === [] ? $offset : $offsets[count($offsets) - 1];
            $from[] = $since;
            $offsets[] = $offset;
            $localFrom[] = $since + max($before, $offset);
        }

        return new self($timezone, $from, $offsets, $localFrom);
    }

    /** An instant as the clock shows it, `2026-06-01 10:00:00`, with ms where it has any. */
    public function shown(int $ms): string
    {
        $rest = $ms % 1000;

        return strtr((string) LocalTime::ofSeconds($this->local(intdiv($ms - $rest, 1000))), 'T', ' ') . ($rest === 0 ? '' : sprintf('.%03d', $rest));
    }

    /** @param int $utc Unix s */
    public function local(int $utc): int
    {
        return $utc + $this->offsets[self::index($this->from, $utc)];
    }

    /** @param int $ms Unix ms @return int ms on the clock */
    public function localMs(int $ms): int
    {
        return $ms + 1000 * $this->offsets[self::index($this->from, intdiv($ms - Integers::mod($ms, 1000), 1000))];
    }

    /** The instant (Unix s) at which the clock shows $local for the first time; null for a time that it leaves out. */
    public function utc(int $local): ?int
    {
        $index = self::index($this->localFrom, $local);
        $utc = $local - $this->offsets[$index];

        return $utc < ($this->from[$index + 1] ?? PHP_INT_MAX) ? $utc : null;
    }

    /** As utc(), but a time that is left out is read with the offset before the change, so that it comes as much later (RFC 5545, 3.3.5). */
    public function utcOrBefore(int $local): int
    {
        return $local - $this->offsets[self::index($this->localFrom, $local)];
    }

    /**
     * Many times at once, in rising order: much faster than one by one.
     *
     * @param list<int> $locals rising
     * @return list<int> Unix s, without those that the clock leaves out
     */
    public function utcs(array $locals): array
    {
        $utcs = [];
        if ($locals === []) {
            return $utcs;
        }
        $index = self::index($this->localFrom, $locals[0]);
        [$offset, $ends, $next] = $this->stretch($index);
        foreach ($locals as $local) {
            while ($local >= $next) {
                [$offset, $ends, $next] = $this->stretch(++$index);
            }
            if ($local - $offset < $ends) {
                $utcs[] = $local - $offset;
            }
        }

        return $utcs;
    }

    /**
     * The same with utcOrBefore(): as many as are given.
     *
     * @param list<int> $locals as good as rising
     * @return list<int> Unix s
     */
    public function utcsOrBefore(array $locals): array
    {
        $utcs = [];
        if ($locals === []) {
            return $utcs;
        }
        $index = self::index($this->localFrom, $locals[0]);
        [$offset, , $next] = $this->stretch($index);
        foreach ($locals as $local) {
            while ($local >= $next) {
                [$offset, , $next] = $this->stretch(++$index);
            }
            // A time read from within a gap may stand behind a later one.
            $utcs[] = $local >= $this->localFrom[$index] ? $local - $offset : $this->utcOrBefore($local);
        }

        return $utcs;
    }

    /**
     * The stretches of local time in [from, to) that the clock leaves out.
     *
     * @return list<array{int, int}> from, to in local s
     */
    public function gaps(int $fromLocal, int $toLocal): array
    {
        $gaps = [];
        for ($index = self::index($this->localFrom, $fromLocal); $index < count($this->from); $index++) {
            if (!isset($this->from[$index + 1])) {
                break;
            }
            $begin = $this->from[$index + 1] + $this->offsets[$index];
            if ($begin >= $toLocal) {
                break;
            }
            $end = $this->from[$index + 1] + $this->offsets[$index + 1];
            if ($end > $begin && $end > $fromLocal) {
                $gaps[] = [max($begin, $fromLocal), min($end, $toLocal)];
            }
        }

        return $gaps;
    }

    /** @return list<int> every instant (Unix s) at which the clock shows $local: none, one or two */
    public function readings(int $local): array
    {
        $utc = $this->utc($local);
        $again = $utc === null ? null : $local - $this->offsets[self::index($this->from, $utc + self::LONGEST_CHANGE_S)];

        return array_values(array_unique(array_filter([$utc, $again !== null && $this->local($again) === $local ? $again : null], static fn (?int $one): bool => $one !== null)));
    }

    /** @return list<int> Unix s in [from, to) at which the clocks change */
    public function changes(int $from, int $to): array
    {
        return array_values(array_filter(array_slice($this->from, 1), static fn (int $change): bool => $change >= $from && $change < $to));
    }

    /** @return array{int, int, int} offset, Unix s at which it ends, local s from which the next one is meant */
    private function stretch(int $index): array
    {
        return [$this->offsets[$index], $this->from[$index + 1] ?? PHP_INT_MAX, $this->localFrom[$index + 1] ?? PHP_INT_MAX];
    }

    /**
     * The last entry that is not above $value; the first for what lies before all.
     *
     * @param list<int> $from rising
     */
    private static function index(array $from, int $value): int
    {
        [$least, $most] = [0, count($from) - 1];
        while ($least < $most) {
            $middle = ($least + $most + 1) >> 1;
            $from[$middle] <= $value ? $least = $middle : $most = $middle - 1;
        }

        return $least;
    }
}
