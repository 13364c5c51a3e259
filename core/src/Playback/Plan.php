<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Picture;
use UpperPane\Core\Layout\Shape;
use UpperPane\Core\Layout\Text;
use UpperPane\Core\Layout\Zone;
use UpperPane\Core\Time\Item;

/** A layout with everything worked out that does not depend on the instant: its layers, the first lowest. */
final readonly class Plan
{
    /** @param list<Part|ZonePlan> $layers */
    private function __construct(public array $layers)
    {
    }

    public static function of(Layout $layout): self
    {
        return self::placed($layout, Placing::outermost());
    }

    private static function placed(Layout $layout, Placing $placing): self
    {
        $layers = [];
        foreach ($layout->elements as $element) {
            $box = Box::ofRect($element->rect());
            $id = $placing->element($element->id());
            $layers[] = match (true) {
                $element instanceof Zone => self::zone($element, $layout, $placing),
                $element instanceof Picture => self::picture($element, $placing),
                $element instanceof Text => new Part($id, Text::KIND, null, null, $placing->rect($box), $placing->box($box), [
                    'text' => $element->text,
                    'style' => $element->style->toArray($placing->typeScale()),
                ]),
                $element instanceof Shape => new Part($id, Shape::KIND, null, null, $placing->rect($box), $placing->box($box), [
                    'shape' => $element->shape,
                    'fill' => $element->fill->hex,
                    'radius_px' => Box::figure($element->radiusPx * $placing->typeScale()),
                ]),
                default => throw new \LogicException('No plan for an element of kind ' . $element->kind() . '.'),
            };
        }

        return new self($layers);
    }

    private static function picture(Picture $picture, Placing $placing): Part
    {
        $box = Box::ofRect($picture->rect());
        $drawn = $picture->fitted()->drawn->placed(1, 1, $box->x, $box->y);

        return new Part($placing->element($picture->id()), Picture::KIND, null, $picture->media, $placing->rect($box), $placing->box($drawn));
    }

    private static function zone(Zone $zone, Layout $layout, Placing $placing): ZonePlan
    {
        $scenes = [];
        $fades = [];
        foreach ($zone->playlist->enabled() as $item) {
            $scenes[] = self::scene($zone, $item, $placing);
            $fades[] = $item->fadeMs;
        }

        return new ZonePlan($placing->element($zone->id()), $layout->loops[$zone->id()], $scenes, $fades);
    }

    /** @return list<Part|ZonePlan> what one item puts into its zone */
    private static function scene(Zone $zone, Item $item, Placing $placing): array
    {
        $box = Box::ofRect($zone->rect());
        $nested = $item->layout === null ? null : $zone->layouts[$item->id];
        $size = $nested->canvas ?? $item->media->size ?? throw new \LogicException('An item plays a media or a layout.');
        $fit = Fit::of($size, $zone->rect()->size(), $item->fit, $item->focusX, $item->focusY);
        $drawn = $placing->box($fit->drawn->placed(1, 1, $box->x, $box->y));
        $id = $placing->element($zone->id());
        if ($nested === null) {
            return [new Part($id, Zone::KIND, $item->id, $item->media, $placing->rect($box), $drawn)];
        }
        $inside = $placing->inside($zone->id(), $box, $fit);
        $ground = new Part($id, 'background', $item->id, null, $drawn->clippedTo($placing->rect($box)), $drawn, ['fill' => $nested->background->hex]);

        return [$ground, ...self::placed($nested, $inside)->layers];
    }
}
