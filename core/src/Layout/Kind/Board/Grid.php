<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;

/** Where the rows of a board have their places, whole px from its top left. */
final readonly class Grid
{
    /**
     * @param int $along places in a line
     * @param int $atOnce places in all; 0 where the pattern does not fit once, or the lines do not
     */
    private function __construct(
        public Size $board,
        public Size $pattern,
        private int $header,
        private bool $isDown,
        private int $across,
        private int $gap,
        public int $along,
        public int $atOnce,
    ) {
    }

    /**
     * Along the line floor((room + gap) / (pattern + gap)) places, room being the board less its header; so many lines beside one another.
     *
     * @param int $header px at the top
     * @param bool $isDown whether a line goes down, and the next stands right of it; else it goes across, and the next stands below
     * @param int $across lines
     * @param int $gap px between places and between lines
     * @param ?int $atMost places
     */
    public static function of(Size $board, Size $pattern, int $header, bool $isDown, int $across, int $gap, ?int $atMost): self
    {
        $room = $board->height - $header;
        [$length, $own, $width, $line] = $isDown ? [$room, $pattern->height, $board->width, $pattern->width] : [$board->width, $pattern->width, $room, $pattern->height];
        $along = max(0, intdiv($length + $gap, $own + $gap));
        $fits = $along > 0 && $room > 0 && $across * $line + ($across - 1) * $gap <= $width;

        return new self($board, $pattern, $header, $isDown, $across, $gap, $along, $fits ? min($along * $across, $atMost ?? PHP_INT_MAX) : 0);
    }

    public function place(int $number): Rect
    {
        $line = intdiv($number, $this->along);
        $step = $number % $this->along;
        [$column, $row] = $this->isDown ? [$line, $step] : [$step, $line];

        return Rect::at(
            $column * ($this->pattern->width + $this->gap),
            $this->header + $row * ($this->pattern->height + $this->gap),
            $this->pattern->width,
            $this->pattern->height,
        );
    }

    /** The sum that gives the places along a line, as it is told: `(840 + 8) / (160 + 8) = 5.05`. */
    public function sum(): string
    {
        return sprintf('(%d + %d) / (%d + %d) = %s', $this->room(), $this->gap, $this->own(), $this->gap, round(($this->room() + $this->gap) / ($this->own() + $this->gap), 2));
    }

    /**
     * Places in all, along lines of so many each with a pattern as large as it may be then, in which the smallest capital is seen well enough.
     *
     * @param \Closure(float): bool $isLegible of a pattern so many times as large
     */
    public function legible(\Closure $isLegible): int
    {
        $count = 0;
        while (($room = ($this->room() + $this->gap) / ($count + 1) - $this->gap) > 0 && $isLegible($room / $this->own())) {
            $count++;
        }

        return $this->across * $count;
    }

    private function room(): int
    {
        return $this->isDown ? $this->board->height - $this->header : $this->board->width;
    }

    private function own(): int
    {
        return $this->isDown ? $this->pattern->height : $this->pattern->width;
    }
}
