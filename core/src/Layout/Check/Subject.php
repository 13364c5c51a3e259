<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Division\Sum;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\TellsItself;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Type\AsSeen;
use UpperPane\Core\Media\Swatches;
use UpperPane\Core\Text\FaceMetrics;

/** What the checks look at: a layout, the display it is seen on if there is one, and what several checks need. */
final readonly class Subject
{
    /**
     * @param list<Text> $words all words, as they need the most room; none where nobody can measure them
     * @param ?\Closure(Element): bool $spoken whose words are looked at; null for those of all elements
     */
    private function __construct(
        public Composed $layout,
        public Surroundings $surroundings,
        public ?Display $display,
        public ?Matching $matching,
        public ?FaceMetrics $faces,
        public ?Swatches $swatches,
        public array $words,
        private ?\Closure $spoken,
    ) {
    }

    /** @param ?\Closure(Element): bool $spoken whose words are looked at; null for those of all elements */
    public static function of(Composed $layout, Surroundings $surroundings, ?\Closure $spoken = null): self
    {
        $layout = $layout->visible();
        $display = $surroundings->display;
        $speaking = $spoken === null ? $layout : $layout->only($spoken);

        return new self(
            $layout,
            $surroundings,
            $display,
            $display === null ? null : Matching::of($layout->canvas, $display->raster()),
            $surroundings->faces,
            $surroundings->swatches,
            $surroundings->faces === null ? [] : AsSeen::words($speaking, $surroundings->faces),
            $spoken,
        );
    }

    /** @return list<array{array<string, string>, self}> the same in other languages (Composed::inOtherLanguages) */
    public function inOtherLanguages(): array
    {
        return array_map(fn (array $other): array => [$other[0], self::of($other[1], $this->surroundings, $this->spoken)], $this->layout->inOtherLanguages());
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

    /** Whether the element of a text tells by itself what a check of texts would tell. */
    public function isToldItself(string $code, Text $text): bool
    {
        $element = $text->part === null ? null : $this->layout->element($text->id());

        return $element instanceof TellsItself && $element->tellsItself($code, $text, $this);
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

    /** Whether a part of the canvas lies behind the frames of a wall alone, where nobody sees it. */
    public function isBehindFrames(Rect $rect): bool
    {
        if ($this->display === null || !$this->display->isWall()) {
            return false;
        }
        $onRaster = $this->onRaster($rect);
        foreach ($this->display->wall->panels as $panel) {
            if ($panel->source->intersection($onRaster) !== null) {
                return false;
            }
        }

        return true;
    }

    /** @return int px between the zones of a strip that lie behind frames alone */
    public function behindFrames(Sum $sum): int
    {
        $rects = array_map(fn (string $id): Rect => $this->layout->zones[$id]->rect(), $sum->elements);
        $across = $sum->side === 'width';
        $hidden = 0;
        foreach (array_slice($rects, 1) as $index => $next) {
            $before = $rects[$index];
            [$from, $to] = $across ? [$before->right(), $next->x] : [$before->bottom(), $next->y];
            if ($to > $from) {
                $gap = $across ? Rect::at($from, $before->y, $to - $from, $before->height) : Rect::at($before->x, $from, $before->width, $to - $from);
                $hidden += $this->isBehindFrames($gap) ? $to - $from : 0;
            }
        }

        return $hidden;
    }

    /** The whole px of the canvas that lie within a rectangle of the display; null where there is none. */
    public function onCanvas(Rect $rect): ?Rect
    {
        return $this->matching === null ? $rect : $this->matching->onCanvas($rect);
    }
}
