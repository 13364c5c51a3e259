<?php

declare(strict_types=1);

namespace UpperPane\Core\Data;

/** What a source has told once, and from when that counts. */
final readonly class Snapshot
{
    /**
     * @param mixed $tree as a reader of trees gives it; null where nothing is known yet
     * @param ?int $takenMs when the data were true, Unix ms; null where they are always
     * @param int $fromMs from when on screens tell these and no earlier ones, Unix ms
     * @param ?string $zone of the source, on whose clock times are meant that say no other
     * @param ?int $staleAfterMs age from which they are too old; null for never
     * @param ?int $agesFromMs from when their age is counted, Unix ms; where null from when they were true
     * @param ?string $name by which the source is known to people; null where that is its id
     */
    public function __construct(
        public mixed $tree,
        public ?int $takenMs = null,
        public int $fromMs = PHP_INT_MIN,
        public ?string $zone = null,
        public ?int $staleAfterMs = null,
        private ?int $agesFromMs = null,
        public ?string $name = null,
    ) {
    }

    /** From when they are too old, Unix ms: t - taken > limit; null for never. */
    public function staleFromMs(): ?int
    {
        $from = $this->agesFromMs();

        return $from === null || $this->staleAfterMs === null ? null : $from + $this->staleAfterMs + 1;
    }

    /** From when their age is counted, Unix ms. */
    public function agesFromMs(): ?int
    {
        return $this->agesFromMs ?? $this->takenMs;
    }
}
