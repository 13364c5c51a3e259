<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** How far a time zone is ahead of UTC, and since when: as a table that a player can look up. Source: the tz database, as PHP brings it. */
final readonly class UtcOffsets
{
    /** 2000 to 2050: longer than any release is played. Before and behind it, its first and last offset hold. */
    private const FROM_S = 946_684_800;
    private const TO_S = 2_524_608_000;

    /** @param non-empty-list<array{int, int}> $table from (Unix ms), offset (ms) */
    private function __construct(private array $table)
    {
    }

    /** @param string $timezone a name of the tz database; one that is unknown counts as UTC, so check it before */
    public static function of(string $timezone): self
    {
        return new self(array_map(static fn (array $change): array => [$change[0] * 1000, $change[1] * 1000], self::between($timezone, self::FROM_S, self::TO_S)));
    }

    /**
     * @param string $timezone a name of the tz database; one that is unknown counts as UTC
     * @param int $from Unix s
     * @return non-empty-list<array{int, int}> from (Unix s), offset (s)
     */
    public static function between(string $timezone, int $from, int $to): array
    {
        static $known = [];
        /** @var array<string, non-empty-list<array{int, int}>> $known tables of the tz database, which never change while a process runs */
        if (isset($known["$timezone $from $to"])) {
            return $known["$timezone $from $to"];
        }
        $table = [];
        foreach (self::isKnown($timezone) ? (new \DateTimeZone($timezone))->getTransitions($from, $to) ?: [] : [] as $change) {
            if ($table === [] || $table[count($table) - 1][1] !== $change['offset']) {
                $table[] = [$change['ts'], $change['offset']];
            }
        }

        return $known["$timezone $from $to"] = $table === [] ? [[$from, 0]] : $table;
    }

    /** @throws DocumentRefused unless the tz database has a zone of that name */
    public static function name(Node $node): string
    {
        $name = $node->text(1, 80);

        return self::isKnown($name) ? $name : throw $node->refused(Reason::ValueUnknown, sprintf('is "%s", which is no time zone; one such as Europe/Lisbon is right.', $name));
    }

    /** @return int ms that local time is ahead of UTC at an instant (Unix ms) */
    public function at(int $ms): int
    {
        [$least, $most] = [0, count($this->table) - 1];
        while ($least < $most) {
            $middle = intdiv($least + $most + 1, 2);
            $this->table[$middle][0] <= $ms ? $least = $middle : $most = $middle - 1;
        }

        return $this->table[$least][1];
    }

    /** @return non-empty-list<array{int, int}> from (Unix ms), offset (ms) */
    public function toArray(): array
    {
        return $this->table;
    }

    public static function isKnown(string $name): bool
    {
        return $name === 'UTC' || in_array($name, \DateTimeZone::listIdentifiers(\DateTimeZone::ALL_WITH_BC), true);
    }
}
