<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Picture\Picture;
use UpperPane\Core\Playback\Part;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Time\Turns;

/** A picture outside any list. */
final readonly class PictureDrawing implements Drawing
{
    public function layers(Element $element, Composed $layout, Placing $placing, Drawer $drawer, ?Turns $turns): array
    {
        assert($element instanceof Picture);
        $painted = $element->painted();
        $own = Box::ofRect($element->rect());

        return [...$drawer->ground($element, $element->ground, $placing), new Part(
            $placing->element($element->id()),
            Picture::KIND,
            null,
            $element->media,
            $placing->rect($painted),
            $placing->box($element->whole()),
            ($element->radiusPx > 0.0 ? ['radius_px' => Box::figure($element->radiusPx * $placing->typeScale())] : [])
                + ($element->flip->isAcross() || $element->flip->isDown() ? ['flip' => $element->flip->value] : []),
            $element->opacity,
            $painted == $own ? null : $placing->rect($own),
        )];
    }

    public function smil(Element $element, Composed $layout, Placing $placing, SmilText $smil, string $in): array
    {
        assert($element instanceof Picture);
        $region = $smil->region($placing->rect(Box::ofRect($element->rect())), 'meet');

        return ["$in<img src=\"" . $smil->addressOf($element->media) . "\" region=\"$region\" dur=\"indefinite\"/>"];
    }
}
