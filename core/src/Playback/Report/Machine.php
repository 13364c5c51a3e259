<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Report;

use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;

/** How the machine of a player is, as far as its browser tells it. */
final readonly class Machine
{
    /** A clock that is nearer is not told: the server's says whole seconds. */
    private const CLOSE_MS = 1500;

    /**
     * @param ?int $clockMs what its clock is ahead of the server's, ms
     * @param ?int $heapBytes memory of the page's script
     * @param ?int $films films that are loaded; each holds a decoder
     * @param ?int $keptBytes what is kept on its disk
     * @param ?int $roomBytes what the browser lets it keep
     * @param ?bool $persists whether the browser promised to throw nothing away by itself
     */
    public function __construct(
        public ?int $clockMs = null,
        public ?int $heapBytes = null,
        public ?int $films = null,
        public ?int $keptBytes = null,
        public ?int $roomBytes = null,
        public ?bool $persists = null,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields */
        static $fields;

        return $fields ??= Fields::of([
            'clock_ms' => Field::int()->saying('what its clock is ahead of the server\'s, as far as whole seconds tell it'),
            'heap_bytes' => Field::int(0)->saying('memory of the page\'s script'),
            'films' => Field::int(0, 1000)->saying('films that are loaded; each holds a decoder'),
            'kept_bytes' => Field::int(0)->saying('what is kept on its disk'),
            'room_bytes' => Field::int(0)->saying('what its browser lets it keep'),
            'persists' => Field::bool()->saying('whether the browser promised to throw nothing away by itself'),
        ]);
    }

    /** @return list<string> sentences about it, the most important first */
    public function says(): array
    {
        $says = [];
        if ($this->clockMs !== null) {
            $s = abs($this->clockMs) / 1000;
            [$size, $unit] = match (true) {
                $s < 120 => [$s, 's'],
                $s < 7200 => [$s / 60, 'min'],
                $s < 172_800 => [$s / 3600, 'h'],
                default => [$s / 86_400, 'days'],
            };
            $says[] = $s * 1000 < self::CLOSE_MS
                ? 'Its clock is right to the second.'
                : sprintf('Its clock is %.1f %s %s.', $size, $unit, $this->clockMs > 0 ? 'fast' : 'slow');
        }
        if ($this->keptBytes !== null && $this->roomBytes !== null) {
            $says[] = sprintf('It keeps %s of the %s that its browser lets it keep.', self::size($this->keptBytes), self::size($this->roomBytes));
        }
        if ($this->persists === false) {
            $says[] = 'Its browser may throw away what is kept when the disk gets full: let it keep data for good.';
        }
        if ($this->heapBytes !== null) {
            $films = $this->films === null ? '' : sprintf(', %d %s loaded', $this->films, $this->films === 1 ? 'film' : 'films');
            $says[] = sprintf('Its page holds %s of memory%s.', self::size($this->heapBytes), $films);
        }

        return $says;
    }

    private static function size(int $bytes): string
    {
        return match (true) {
            $bytes < 1_000_000 => sprintf('%d kB', (int) ceil($bytes / 1000)),
            $bytes < 1_000_000_000 => sprintf('%.1f MB', $bytes / 1_000_000),
            default => sprintf('%.1f GB', $bytes / 1_000_000_000),
        };
    }

    /** @return array<string, int|bool> */
    public function toArray(): array
    {
        return array_filter([
            'clock_ms' => $this->clockMs,
            'heap_bytes' => $this->heapBytes,
            'films' => $this->films,
            'kept_bytes' => $this->keptBytes,
            'room_bytes' => $this->roomBytes,
            'persists' => $this->persists,
        ], static fn (mixed $value): bool => $value !== null);
    }
}
