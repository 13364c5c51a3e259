<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Chart;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Type\TextStyle;

/** One thing of a chart, where it lies on the canvas: a shape, words, or a line through points. */
final readonly class ChartPart
{
    /**
     * @param 'plot'|'rule'|'column'|'point'|'line'|'tick'|'label' $part
     * @param ?int $row place of the row that it tells, among the chosen ones
     * @param list<array{float, float}> $points px from the top left of its rectangle
     * @param float $widthPx of the line
     */
    private function __construct(
        public string $part,
        public ?int $row,
        public Rect $rect,
        public ?Colour $fill,
        public string $shape,
        public string $text,
        public ?TextStyle $style,
        public array $points,
        public float $widthPx,
    ) {
    }

    /** @param 'plot'|'rule'|'column'|'point' $part */
    public static function shape(string $part, ?int $row, Rect $rect, Colour $fill, string $shape = 'rectangle'): self
    {
        return new self($part, $row, $rect, $fill, $shape, '', null, [], 0.0);
    }

    /** @param 'tick'|'label' $part */
    public static function words(string $part, ?int $row, Rect $rect, string $text, TextStyle $style): self
    {
        return new self($part, $row, $rect, null, '', $text, $style, [], 0.0);
    }

    /**
     * @param 'plot'|'line'|'column' $part
     * @param list<array{float, float}> $points
     */
    public static function line(string $part, ?int $row, Rect $rect, Colour $color, array $points, float $widthPx): self
    {
        return new self($part, $row, $rect, $color, '', '', null, $points, $widthPx);
    }
}
