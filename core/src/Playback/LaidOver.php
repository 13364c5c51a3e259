<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Type\TextStyle;

/** A mark, or words, that an overlay draws at an instant. */
final readonly class LaidOver implements Thing
{
    /**
     * @param string $overlay its id
     * @param string $text what it says
     * @param ?array{length_px: float, from_px: float} $runs where it moves: how long, and where it begins in its box
     * @param ?TextStyle $style in which its words are set on the canvas
     */
    public function __construct(
        public string $overlay,
        public string $kind,
        public Rect $rect,
        public float $opacity,
        public string $text,
        private ?array $runs,
        public ?TextStyle $style = null,
    ) {
    }

    /**
     * The same while it runs.
     *
     * @param array{length_px: float, from_px: float} $runs
     */
    public function at(array $runs): self
    {
        return new self($this->overlay, $this->kind, $this->rect, $this->opacity, $this->text, $runs, $this->style);
    }

    public function toArray(): array
    {
        $box = $this->rect->toArray();

        return ['overlay' => $this->overlay, 'kind' => $this->kind, 'rect' => $box, 'drawn' => $box, 'opacity' => Box::figure($this->opacity)] + ($this->runs === null ? [] : [
            'text' => $this->text,
            'length_px' => Box::figure($this->runs['length_px']),
            'from_px' => Box::figure($this->runs['from_px']),
        ]);
    }
}
