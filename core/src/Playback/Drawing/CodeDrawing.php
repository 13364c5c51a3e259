<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Code\Code;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Playback\Part;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Time\Turns;

/** A code and its caption. */
final readonly class CodeDrawing implements Drawing
{
    /** The code, and its caption. */
    public function layers(Element $element, Composed $layout, Placing $placing, Drawer $drawer, ?Turns $turns): array
    {
        assert($element instanceof Code);
        $own = $placing->rect(Box::ofRect($element->rect()));
        $symbol = $element->symbol();
        $modules = $drawer->surroundings->codes?->modules($element->text, $element->level) ?? [];
        $parts = [new Part($placing->element($element->id()), Code::KIND, null, null, $placing->rect($symbol), $placing->box($symbol), [
            'fill' => $element->ground->hex,
            'code' => ['modules' => $modules, 'quiet' => $element->quiet, 'color' => $element->color->hex],
        ], of: $own)];
        $rect = $element->captionRect();
        if ($rect !== null && $element->captionStyle !== null) {
            $parts[] = TextDrawing::part($element, Text::within($element, $rect, $element->caption, $element->captionStyle), $placing, $drawer);
        }

        return $parts;
    }

    public function smil(Element $element, Composed $layout, Placing $placing, SmilText $smil, string $in): null
    {
        return null;
    }
}
