<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Rows;

use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Moment;

/** A date alone, in no zone. */
final readonly class Day
{
    private function __construct(public string $text, public int $number)
    {
    }

    /** Null unless written as 2026-06-01. */
    public static function parse(string $text): ?self
    {
        if (preg_match('/^(\d{4})-(\d\d)-(\d\d)$/D', $text, $m) !== 1 || !Moment::isDay((int) $m[1], (int) $m[2], (int) $m[3])) {
            return null;
        }

        return new self($text, Calendar::day((int) $m[1], (int) $m[2], (int) $m[3]));
    }

    public function __toString(): string
    {
        return $this->text;
    }
}
