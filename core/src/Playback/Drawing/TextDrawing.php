<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Text\StyledSpan;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Playback\Part;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Time\Turns;

/** Words. */
final readonly class TextDrawing implements Drawing
{
    public function layers(Element $element, Composed $layout, Placing $placing, Drawer $drawer, ?Turns $turns): array
    {
        assert($element instanceof Text);
        $faces = $drawer->surroundings->faces;

        return [self::part($element, $faces === null ? $element : $element->resolved($faces), $placing, $drawer)];
    }

    /** Words of an element as they are drawn: set smaller or cut where they have to be. */
    public static function part(Element $element, Text $text, Placing $placing, Drawer $drawer): Part
    {
        $box = Box::ofRect($text->rect());
        $scale = $placing->typeScale();
        $look = $drawer->words($text->text, $text->style, $scale);
        if ($text->marks !== []) {
            $look['marks'] = array_map(static fn (StyledSpan $mark): array => $mark->drawn($text->style->sizePx * $scale), $text->marks);
        }

        return new Part(
            $placing->element($element->id()),
            Text::KIND,
            null,
            null,
            $placing->rect($box),
            $placing->box($box),
            $look,
            of: $text->ownBox ? null : $placing->rect(Box::ofRect($element->rect())),
        );
    }

    public function smil(Element $element, Composed $layout, Placing $placing, SmilText $smil, string $in): array
    {
        assert($element instanceof Text);
        $region = $smil->region($placing->rect(Box::ofRect($element->rect())));

        return ["$in<smilText region=\"$region\" dur=\"indefinite\">" . str_replace("\n", '<br/>', $smil->escaped($element->text)) . '</smilText>'];
    }
}
