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
     * @param ?array{text: string, length_px: float, from_px: float} $runs where it moves: what, how long, and where it begins in its box
     * @param ?TextStyle $style in which its words are set on the canvas
     */
    public function __construct(public string $overlay, public string $kind, public Rect $rect, public float $opacity, public ?array $runs, public ?TextStyle $style = null)
    {
    }

    public function toArray(): array
    {
        $box = $this->rect->toArray();

        return ['overlay' => $this->overlay, 'kind' => $this->kind, 'rect' => $box, 'drawn' => $box, 'opacity' => Box::figure($this->opacity)] + ($this->runs === null ? [] : [
            'text' => $this->runs['text'],
            'length_px' => Box::figure($this->runs['length_px']),
            'from_px' => Box::figure($this->runs['from_px']),
        ]);
    }
}
