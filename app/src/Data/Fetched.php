<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

/** What was fetched of a source, before anybody looked into it. */
final readonly class Fetched
{
    /**
     * @param ?int $status of HTTP; null where there was no answer
     * @param ?string $bytes null where nothing came that counts: what was known holds, or it failed
     * @param int $came bytes that came over the network, headers apart
     * @param ?string $why it failed, as a sentence; null where it did not
     */
    public function __construct(
        public ?int $status,
        public ?string $bytes,
        public int $came,
        public int $tookMs,
        public ?string $why = null,
        public ?string $etag = null,
        public ?string $modified = null,
    ) {
    }
}
