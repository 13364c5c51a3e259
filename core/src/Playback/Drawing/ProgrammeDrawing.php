<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Time\Turns;

/** The opening of a window where nothing plays: black. */
final readonly class ProgrammeDrawing implements Drawing
{
    public function layers(Element $element, Composed $layout, Placing $placing, Drawer $drawer, ?Turns $turns): array
    {
        return $drawer->ground($element, Colour::black(), $placing);
    }

    public function smil(Element $element, Composed $layout, Placing $placing, SmilText $smil, string $in): null
    {
        return null;
    }
}
