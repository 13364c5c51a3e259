<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;

/** A panel in its wall: where it hangs, what it shows, and what feeds it. */
final readonly class PlacedPanel
{
    /**
     * @param Panel $panel as surveyed
     * @param Box $place its active area as hung, in mm from the top left of the wall's canvas
     * @param Rect $source what it shows, in px of the canvas
     * @param ?string $player null where a processor feeds it, or nobody is known
     * @param ?int $output of the player
     */
    public function __construct(
        public Panel $panel,
        public Box $place,
        public Rect $source,
        public ?string $player,
        public ?int $output,
    ) {
    }

    /** The panel with its frame as it hangs, mm. */
    public function outer(): Box
    {
        $frame = $this->panel->frame();

        return new Box(
            $this->place->x - $frame->left,
            $this->place->y - $frame->top,
            $frame->left + $this->place->width + $frame->right,
            $frame->top + $this->place->height + $frame->bottom,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->panel->id,
            'player' => $this->player,
            'output' => $this->output,
            'rotation' => $this->panel->rotation->value,
            'source' => $this->source->toArray(),
            'native' => $this->panel->native->toArray(),
            'place_mm' => $this->place->toArray(),
            'frame_mm' => $this->panel->frame()->toArray(),
        ];
    }
}
