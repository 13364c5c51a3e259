<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;

/** A point in time as whole milliseconds of UTC since 1970-01-01T00:00:00Z. */
final readonly class Instant
{
    /** Last instant that is read: the end of the year 9999. */
    private const LATEST = 253_402_300_799_999;

    private function __construct(public int $ms)
    {
    }

    public static function ofMs(int $ms): self
    {
        return new self($ms);
    }

    /** @throws DocumentRefused unless written as 2026-06-01T10:00:00Z, with .250 for milliseconds */
    public static function parse(string $text, string $path = ''): self
    {
        $wrong = DocumentRefused::because(Reason::ValueRange, sprintf('"%s" is no instant; 2026-06-01T10:00:00Z or 2026-06-01T10:00:00.250Z is right.', $text), $path);
        if (preg_match('/^(\d{4})-(\d\d)-(\d\d)T(\d\d):(\d\d):(\d\d)(?:\.(\d{1,3}))?Z$/D', $text, $m) !== 1) {
            throw $wrong;
        }
        [$year, $month, $day, $hour, $minute, $second] = array_map(intval(...), array_slice($m, 1, 6));
        if (!checkdate($month, $day, $year) || $hour > 23 || $minute > 59 || $second > 59) {
            throw $wrong;
        }
        $ms = (int) gmmktime($hour, $minute, $second, $month, $day, $year) * 1000 + (int) str_pad($m[7] ?? '', 3, '0');
        if (abs($ms) > self::LATEST) {
            throw $wrong;
        }

        return new self($ms);
    }

    public function __toString(): string
    {
        $second = intdiv($this->ms, 1000);
        $ms = $this->ms % 1000;
        if ($ms < 0) {
            $ms += 1000;
            $second--;
        }

        return gmdate('Y-m-d\TH:i:s', $second) . ($ms === 0 ? '' : sprintf('.%03d', $ms)) . 'Z';
    }
}
