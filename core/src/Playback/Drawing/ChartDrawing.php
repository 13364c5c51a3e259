<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Chart\Chart;
use UpperPane\Core\Layout\Kind\Chart\ChartPart;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Shape\Shape;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Playback\Part;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Time\Turns;

/** A chart: shapes, lines and words, as the core has worked them out. */
final readonly class ChartDrawing implements Drawing
{
    /** Kind of a line through points, which is no element by itself. */
    private const LINE = 'line';

    public function layers(Element $element, Composed $layout, Placing $placing, Drawer $drawer, ?Turns $turns): array
    {
        assert($element instanceof Chart);

        return array_map(static fn (ChartPart $one): Part => self::part($element, $one, $placing, $drawer), $element->plan($drawer->surroundings->faces)->parts);
    }

    public function smil(Element $element, Composed $layout, Placing $placing, SmilText $smil, string $in): null
    {
        return null;
    }

    private static function part(Chart $chart, ChartPart $one, Placing $placing, Drawer $drawer): Part
    {
        $box = Box::ofRect($one->rect);
        $own = $placing->element($chart->id());
        $of = $placing->rect(Box::ofRect($chart->rect()));
        if ($one->style !== null) {
            return TextDrawing::part($chart, Text::within($chart, $one->rect, $one->text, $one->style), $placing, $drawer)->ownedBy($own, $one->part, $one->row, $of);
        }
        $fill = $one->fill->hex ?? '#000000';
        [$kind, $look] = $one->points === []
            ? [Shape::KIND, ['shape' => $one->shape, 'fill' => $fill, 'radius_px' => 0]]
            : [self::LINE, ['line' => [
                'points' => $one->points,
                'size' => ['width' => $one->rect->width, 'height' => $one->rect->height],
                'width_px' => $one->widthPx,
                'color' => $fill,
            ]]];

        return (new Part($own, $kind, null, null, $placing->rect($box), $placing->box($box), $look))->ownedBy($own, $one->part, $one->row, $of);
    }
}
