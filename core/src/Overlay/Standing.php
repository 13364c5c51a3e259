<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Time\OpeningHours;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/**
 * From now until when something stands that is put up in a hurry: so many minutes (`for_min`); or `until` an instant (`2026-06-01T10:30:00Z`), a date and
 * time on the clock there (`2026-06-01T10:30:00`), when that clock shows a time of day (`10:30`) next, or when the place closes next (`closing`).
 */
final readonly class Standing
{
    /** What is to stand for longer is a setting of places. */
    public const LONGEST_MS = 31 * 86_400_000;

    public const CLOSING = 'closing';

    private const DAY_S = 86_400;

    /**
     * @param int $fromMs Unix ms
     * @param int $untilMs Unix ms
     */
    private function __construct(public int $fromMs, public int $untilMs)
    {
    }

    /**
     * @param WallClock $clock of the display
     * @param int $nowMs Unix ms
     * @param ?OpeningHours $hours of where it hangs; null where nobody says them
     * @throws Refused where it is over already, or more than 31 days ahead, or nobody knows when it closes there
     */
    public static function fromNode(Node $within, WallClock $clock, int $nowMs, ?OpeningHours $hours = null): self
    {
        $minutes = $within->optional('for_min');
        $node = $minutes ?? $within->field('until');
        $untilMs = $minutes === null ? self::until($node, $clock, $nowMs, $hours) : $nowMs + 60_000 * $minutes->int(1, 100_000, 'min');

        return match (true) {
            $untilMs <= $nowMs => throw $node->refused(Reason::ValueRange, sprintf('is over already: it is %s (%s) by now.', $clock->shown($nowMs), $clock->timezone)),
            $untilMs - $nowMs > self::LONGEST_MS => throw $node->refused(Reason::ValueRange, 'is more than 31 days ahead; what is to stand for longer is put up as an overlay of a place.'),
            default => new self($nowMs, $untilMs),
        };
    }

    /** @return array{bookings: list<array{start: string, end: string}>} as an overlay says it */
    public function when(): array
    {
        return ['bookings' => [['start' => (string) Instant::ofMs($this->fromMs), 'end' => (string) Instant::ofMs($this->untilMs)]]];
    }

    /** @throws Refused */
    private static function until(Node $node, WallClock $clock, int $nowMs, ?OpeningHours $hours): int
    {
        $text = $node->text(1, 40);
        if ($text === self::CLOSING) {
            return $hours?->closesAfter($clock, $nowMs) ?? throw $node->refused(Reason::ValueUnknown, $hours === null
                ? 'is not known there: nobody says when the place is open. It is stated under Settings of places, or say a time.'
                : 'never comes there by its opening hours: say a time.');
        }
        if (preg_match('/^([01]\d|2[0-3]):([0-5]\d)$/D', $text, $m) === 1) {
            return self::next(3600 * (int) $m[1] + 60 * (int) $m[2], $clock, $nowMs);
        }

        return str_ends_with($text, 'Z') ? Instant::parse($text, $node->path)->ms : 1000 * $clock->utcOrBefore(LocalTime::fromNode($node)->seconds);
    }

    /** The next instant at which the clock shows a time of day; where it leaves that out, as much later as it is put forward. */
    private static function next(int $ofDay, WallClock $clock, int $nowMs): int
    {
        $local = $clock->local(intdiv($nowMs, 1000));
        for ($day = $local - $local % self::DAY_S;; $day += self::DAY_S) {
            foreach ($clock->readings($day + $ofDay) ?: [$clock->utcOrBefore($day + $ofDay)] as $utc) {
                if (1000 * $utc > $nowMs) {
                    return 1000 * $utc;
                }
            }
        }
    }
}
