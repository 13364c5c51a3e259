<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Layout\Kind\Board\Board;
use UpperPane\Core\Layout\Kind\Chart\Chart;
use UpperPane\Core\Layout\Kind\Clock\Clock;
use UpperPane\Core\Layout\Kind\Code\Code;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Picture\Picture;
use UpperPane\Core\Layout\Kind\Programme\Programme;
use UpperPane\Core\Layout\Kind\Shape\Shape;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Kind\Ticker\Ticker;
use UpperPane\Core\Layout\Kind\Zone\Zone;

/** Who draws which kind. A new kind has a line here. */
final readonly class Drawings
{
    /** @var array<string, class-string<Drawing>> */
    private const ALL = [
        Zone::KIND => ZoneDrawing::class,
        Text::KIND => TextDrawing::class,
        Picture::KIND => PictureDrawing::class,
        Shape::KIND => ShapeDrawing::class,
        Clock::KIND => ClockDrawing::class,
        Code::KIND => CodeDrawing::class,
        Ticker::KIND => TickerDrawing::class,
        Board::KIND => BoardDrawing::class,
        Chart::KIND => ChartDrawing::class,
        Programme::KIND => ProgrammeDrawing::class,
    ];

    public static function of(Element $element): Drawing
    {
        $class = self::ALL[$element->kind()] ?? throw new \LogicException('Nobody draws an element of kind ' . $element->kind() . '.');

        return new $class();
    }

    /** @return list<string> */
    public static function kinds(): array
    {
        return array_keys(self::ALL);
    }
}
