<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Text;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Check\Check;
use UpperPane\Core\Layout\Check\Subject;

/** `text.clipped`: words that are cut with an ellipsis, as their design says, and how many of them are not seen. */
final readonly class TextClipped implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'text.clipped',
                'hint',
                'a text that is cut with an ellipsis where its box ends, as its design says, and how many characters are lost',
                'what is cut is never read',
                'HarfBuzz, as `text.overflow`',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        $faces = $subject->faces;
        if ($faces === null) {
            return;
        }
        foreach ($subject->layout->elements as $element) {
            if (!$element instanceof Text || $element->overflow !== 'clip') {
                continue;
            }
            $left = $element->resolved($faces);
            if ($left === $element) {
                continue;
            }
            $lost = mb_strlen($element->text) - mb_strlen($left->text) + 1;
            yield new Finding(
                'text.clipped',
                Level::Hint,
                [$element->id()],
                sprintf('"%s" has no room for %d of its %d characters: it ends in "%s".', $element->id(), $lost, mb_strlen($element->text), mb_substr($left->text, -12)),
                ['lost' => $lost, 'characters' => mb_strlen($element->text)],
                $element->rect(),
            );
        }
    }
}
