<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Division;

/** The sizes of the zones that one strip of the canvas crosses, added up and compared with the canvas. */
final readonly class Sum
{
    /**
     * @param 'width'|'height' $side which sizes are added
     * @param list<int> $sizes px, from left to right or from top to bottom
     * @param list<string> $elements ids of the zones, in the same order
     * @param list<string> $others ids of zones in further strips with the same list of sizes
     * @param int $canvas px of the canvas on that side
     */
    public function __construct(
        public string $side,
        public array $sizes,
        public array $elements,
        public array $others,
        public int $canvas,
    ) {
    }

    /** @return int in px */
    public function total(): int
    {
        return array_sum($this->sizes);
    }

    /** @return int px too many; below 0 too few */
    public function difference(): int
    {
        return $this->total() - $this->canvas;
    }

    /** The sum as one writes it: `880 + 880 = 1760 px`. */
    public function written(): string
    {
        return count($this->sizes) === 1 ? $this->total() . ' px' : implode(' + ', $this->sizes) . ' = ' . $this->total() . ' px';
    }

    /** @return array<string, mixed> a row of the ledger */
    public function toArray(): array
    {
        return [
            'side' => $this->side,
            'elements' => $this->elements,
            'sizes' => $this->sizes,
            'total' => $this->total(),
            'canvas' => $this->canvas,
            'difference' => $this->difference(),
        ];
    }
}
