<?php

declare(strict_types=1);

namespace UpperPane\Core\Data;

/** What fetching takes of the network: once for each source, however many displays show it. */
final readonly class NetworkCost
{
    private const HOUR_MS = 3_600_000;

    /** @param float $bytesH over the network in an hour, headers apart */
    private function __construct(public float $fetchesH, public float $bytesH)
    {
    }

    /**
     * @param ?int $everyMs null for a source that is not fetched
     * @param float $bytes that one fetch brings, on the average
     */
    public static function of(?int $everyMs, float $bytes): self
    {
        $fetches = $everyMs === null ? 0.0 : self::HOUR_MS / $everyMs;

        return new self($fetches, $fetches * $bytes);
    }

    public static function sum(self ...$costs): self
    {
        return new self(array_sum(array_map(static fn (self $one): float => $one->fetchesH, $costs)), array_sum(array_map(static fn (self $one): float => $one->bytesH, $costs)));
    }

    /** @return array{fetches_h: float, bytes_h: int, half: int} and the bytes that fetching half as often would save in an hour */
    public function toArray(): array
    {
        return ['fetches_h' => round($this->fetchesH, 2), 'bytes_h' => (int) round($this->bytesH), 'half' => (int) round($this->bytesH / 2)];
    }
}
