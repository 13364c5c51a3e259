<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;

/** `text.face`: a face that is not of the house, or letters that the face does not have: each player then takes what it has. */
final readonly class TextFace implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'text.face',
                'warning',
                'a face that is not of the house; letters that the face does not have',
                'each player draws them in whatever it has',
                'the `cmap` of the face, by HarfBuzz',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        $faces = $subject->faces;
        if ($faces === null) {
            return;
        }
        foreach ($subject->words as $element) {
            $family = $element->style->family;
            if (!$faces->knows($family)) {
                yield new Finding('text.face', Level::Warning, [$element->id()], sprintf(
                    '"%s" is set in "%s", which is no face of the house: it cannot be measured, and players draw it in whatever they have.',
                    $element->id(),
                    $family,
                ), ['family' => $family], $element->rect());
                continue;
            }
            $missing = $faces->missing($element->text, $family, $element->style->weight);
            if ($missing !== []) {
                yield new Finding('text.face', Level::Warning, [$element->id()], sprintf(
                    '%s has no letter for %s%s in "%s": players draw it in whatever they have.',
                    $family,
                    implode(' ', array_slice($missing, 0, 8)),
                    count($missing) > 8 ? sprintf(' and %d more', count($missing) - 8) : '',
                    $element->id(),
                ), ['family' => $family, 'missing' => $missing], $element->rect());
            }
        }
    }
}
