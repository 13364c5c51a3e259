<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser\Support;

/** A screenshot as pixels. */
final readonly class Screen
{
    private function __construct(private \GdImage $image)
    {
    }

    public static function of(Chrome $chrome): self
    {
        $image = imagecreatefromstring($chrome->driver->takeScreenshot());
        assert($image instanceof \GdImage);

        return new self($image);
    }

    /** `#rrggbb` of a pixel. */
    public function at(int $x, int $y): string
    {
        return sprintf('#%06x', (int) imagecolorat($this->image, $x, $y) & 0xFFFFFF);
    }

    /** Whether a pixel has this colour within $tolerance on each channel. */
    public function is(int $x, int $y, string $hex, int $tolerance = 3): bool
    {
        $found = sscanf($this->at($x, $y), '#%2x%2x%2x');
        $want = sscanf($hex, '#%2x%2x%2x');
        assert(is_array($found) && is_array($want));

        return max(array_map(static fn (mixed $a, mixed $b): int => abs((int) $a - (int) $b), $found, $want)) <= $tolerance;
    }

    public function width(): int
    {
        return imagesx($this->image);
    }

    public function height(): int
    {
        return imagesy($this->image);
    }
}
