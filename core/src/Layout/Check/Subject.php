<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\AsSeen;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Neighbours;
use UpperPane\Core\Layout\Text;
use UpperPane\Core\Layout\Zone;
use UpperPane\Core\Media\Pixels;
use UpperPane\Core\Text\FaceMetrics;

/** What the checks look at: a layout, the display it is seen on if there is one, and what several checks need. */
final readonly class Subject
{
    /**
     * @param list<array{Zone, Zone}> $overlaps pairs of zones with a common part, the lower one first
     * @param list<Text> $words all words, as they need the most room; none where nobody can measure them
     */
    private function __construct(
        public Layout $layout,
        public ?Display $display,
        public ?Matching $matching,
        public array $overlaps,
        public ?FaceMetrics $faces,
        public ?Pixels $pixels,
        public array $words,
    ) {
    }

    public static function of(Layout $layout, ?Display $display, ?FaceMetrics $faces = null, ?Pixels $pixels = null): self
    {
        $layout = $layout->visible();

        return new self(
            $layout,
            $display,
            $display === null ? null : Matching::of($layout->canvas, $display->raster()),
            Neighbours::overlapping(array_values($layout->zones)),
            $faces,
            $pixels,
            $faces === null ? [] : AsSeen::words($layout, $faces),
        );
    }

    /**
     * All words whose face can be measured, as they need the most room; none where nobody can.
     *
     * @return list<Text>
     */
    public function measurable(): array
    {
        $faces = $this->faces;

        return $faces === null ? [] : array_values(array_filter(
            $this->words,
            static fn (Text $text): bool => $faces->knows($text->style->family),
        ));
    }

    /** Mm of the display for one px of the canvas; null where no display is given. */
    public function mmPerCanvasPx(): ?float
    {
        return $this->display === null ? null : $this->matching?->mmPerCanvasPx($this->display->pxPerMm());
    }

    /** Px of the display for one px of the canvas; 1 where no display is given. */
    public function displayScale(): float
    {
        return $this->matching === null ? 1.0 : $this->matching->scale;
    }

    /** The px of the display that a rectangle of the canvas touches; the same rectangle where no display is given. */
    public function onRaster(Rect $rect): Rect
    {
        return $this->matching?->onRaster($rect) ?? $rect;
    }

    /** The whole px of the canvas that lie within a rectangle of the display; null where there is none. */
    public function onCanvas(Rect $rect): ?Rect
    {
        return $this->matching === null ? $rect : $this->matching->onCanvas($rect);
    }
}
