<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

/** An event of a calendar, or what stands in the place of one of its occurrences. */
final readonly class CalendarEvent
{
    /**
     * @param int $place in the file, from 0
     * @param ?int $lengthS exactly, where it has an end of its own
     * @param int $days nominally, where it has a length or is of days
     * @param int $seconds beside those days
     * @param ?CalendarTime $replaces the occurrence of its uid in whose place it stands
     */
    public function __construct(
        public int $place,
        public string $uid,
        public CalendarTime $start,
        public ?int $lengthS,
        public int $days,
        public int $seconds,
        public ?CalendarTime $replaces,
        public bool $isForFuture,
        public int $sequence,
        public ContentLines $component,
    ) {
    }
}
