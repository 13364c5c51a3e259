<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Layout\Check\Subject;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Surroundings;

/** What the boards of a layout make of their rows. */
final readonly class Boards
{
    /**
     * @return array<string, array<string, mixed>> as `bin/upperpane page` prints each, by id
     * @throws DocumentRefused where one has no room for a row
     */
    public static function of(Composed $layout, Surroundings $surroundings): array
    {
        foreach ($layout->elements as $place => $element) {
            if ($element instanceof PlayingBoard && $element->board->grid->atOnce === 0) {
                $message = sprintf('/elements/%d/pattern has no room: it has %s px, the board %s px.', $place, $element->board->grid->pattern, $element->board->grid->board);
                throw DocumentRefused::because(Reason::ValueRange, $message, "/elements/$place/pattern");
            }
        }

        return self::told($layout, $surroundings);
    }

    /** @return array<string, array<string, mixed>> the same, with no row at once where there is no room */
    public static function told(Composed $layout, Surroundings $surroundings): array
    {
        $subject = Subject::of($layout, $surroundings, static fn (): bool => false);
        $told = [];
        foreach ($layout->elements as $element) {
            if ($element instanceof PlayingBoard) {
                $told[$element->id()] = BoardFigures::of($element, $surroundings->atMs)->toArray($element->legibleRows($subject));
            }
        }

        return $told;
    }
}
