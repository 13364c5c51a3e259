<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** A date and a time as a clock on the wall shows it, in no zone yet: whole seconds since 1970-01-01T00:00:00 on that clock. */
final readonly class LocalTime
{
    /** As documents write it. */
    public const PATTERN = '^\\d{4}-\\d\\d-\\d\\dT\\d\\d:\\d\\d(:\\d\\d)?$';

    private function __construct(public int $seconds)
    {
    }

    public static function ofSeconds(int $seconds): self
    {
        return new self($seconds);
    }

    /** @throws DocumentRefused unless written as 2026-03-28T01:30:00; the seconds may be left out */
    public static function parse(string $text, string $path = ''): self
    {
        if (
            preg_match('/^(\d{4})-(\d\d)-(\d\d)T(\d\d):(\d\d)(?::(\d\d))?$/D', $text, $m) !== 1
            || !checkdate((int) $m[2], (int) $m[3], (int) $m[1]) || (int) $m[4] > 23 || (int) $m[5] > 59 || (int) ($m[6] ?? 0) > 59
        ) {
            throw DocumentRefused::because(Reason::ValueRange, sprintf(
                '%s"%s" is no local time; one without Z or offset such as 2026-03-28T01:30:00 is right.',
                $path === '' ? '' : "$path: ",
                mb_strimwidth($text, 0, 40, '...'),
            ), $path);
        }

        return new self(Calendar::day((int) $m[1], (int) $m[2], (int) $m[3]) * Calendar::DAY_S + (int) $m[4] * 3600 + (int) $m[5] * 60 + (int) ($m[6] ?? 0));
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        return self::parse($node->text(1, 40), $node->path);
    }

    /**
     * Times that are left out, and whole days that are, written as dates.
     *
     * @param list<string> $texts
     * @return array{list<self>, list<int>} times, and day numbers (Calendar)
     * @throws DocumentRefused
     */
    public static function timesAndDays(array $texts, string $path = ''): array
    {
        [$times, $days] = [[], []];
        foreach ($texts as $index => $text) {
            if (preg_match('/^\d{4}-\d\d-\d\d$/D', $text) === 1) {
                $days[] = self::parse($text . 'T00:00:00', $path === '' ? '' : "$path/$index")->day();
            } else {
                $times[] = self::parse($text, $path === '' ? '' : "$path/$index");
            }
        }

        return [$times, $days];
    }

    /** Day number of its date (Calendar). */
    public function day(): int
    {
        return intdiv($this->seconds - Integers::mod($this->seconds, Calendar::DAY_S), Calendar::DAY_S);
    }

    /** Seconds since midnight on its clock. */
    public function ofDay(): int
    {
        return Integers::mod($this->seconds, Calendar::DAY_S);
    }

    public function __toString(): string
    {
        return gmdate('Y-m-d\TH:i:s', $this->seconds);
    }
}
