<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Playback\Part;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Playback\ZonePlan;
use UpperPane\Core\Time\Turns;

/** How elements of one kind are drawn, with everything worked out that does not depend on the instant. */
interface Drawing
{
    /**
     * @param Element $element of the kind that it draws
     * @param ?Turns $turns what takes turns in it, where anything does
     * @return list<Part|ZonePlan> lowest first
     */
    public function layers(Element $element, Composed $layout, Placing $placing, Drawer $drawer, ?Turns $turns): array;

    /**
     * The same as elements of SMIL 3.0.
     *
     * @param Element $element of the kind that it draws
     * @return ?list<string> lines; null where SMIL has no counterpart
     */
    public function smil(Element $element, Composed $layout, Placing $placing, SmilText $smil, string $in): ?array;
}
