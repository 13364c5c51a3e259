<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

/** What is known of one player: since when it is bound, when it called last, and what it then said. */
final readonly class Call
{
    /**
     * @param int $boundMs Unix ms
     * @param ?int $calledMs Unix ms of its last call; null where it never called
     * @param ?string $plays SHA-256 of the release that it plays
     * @param ?string $trouble what it complains of, in its own words
     */
    public function __construct(
        public int $boundMs,
        public ?int $calledMs = null,
        public ?string $plays = null,
        public ?string $trouble = null,
    ) {
    }
}
