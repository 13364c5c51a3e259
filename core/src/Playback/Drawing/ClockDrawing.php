<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Clock\Clock;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Playback\ToldTime;
use UpperPane\Core\Time\Turns;

/** A clock, a date or a time that is left. */
final readonly class ClockDrawing implements Drawing
{
    public function layers(Element $element, Composed $layout, Placing $placing, Drawer $drawer, ?Turns $turns): array
    {
        assert($element instanceof Clock);
        return [$drawer->plain($element, $placing, $element->style === null
            ? ['dial' => $element->dial?->toArray()]
            : $drawer->words('', $element->style, $placing->typeScale()), new ToldTime($element, $drawer->surroundings->timezone))];
    }

    public function smil(Element $element, Composed $layout, Placing $placing, SmilText $smil, string $in): null
    {
        return null;
    }
}
