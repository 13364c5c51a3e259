<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Ticker\Ticker;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\RunningText;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Time\Turns;

/** Running text. */
final readonly class TickerDrawing implements Drawing
{
    public function layers(Element $element, Composed $layout, Placing $placing, Drawer $drawer, ?Turns $turns): array
    {
        assert($element instanceof Ticker);
        $faces = $drawer->surroundings->faces;
        $length = $faces === null ? null : $element->lengthPx($faces);

        return [$drawer->plain(
            $element,
            $placing,
            $drawer->words($element->text, $element->style, $placing->typeScale()),
            $length === null ? null : new RunningText($element, $length, $placing->box(Box::ofRect($element->rect())), $placing->typeScale()),
        )];
    }

    public function smil(Element $element, Composed $layout, Placing $placing, SmilText $smil, string $in): null
    {
        return null;
    }
}
