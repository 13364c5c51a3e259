<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;

/** An element whose one text may be a message: over the first of its rows, where it has any. It has a message, rows, and what it is in turn. */
trait TellsMessage
{
    use ToldInTurn;

    /** @return array<string, Field> */
    private static function messageFields(): array
    {
        return [
            'message' => Field::bool()->saying('whether the text is an ICU MessageFormat pattern over the fields of a row'),
            'rows' => Field::object(Rows::fields())->saying('of data that the message tells'),
        ];
    }

    /**
     * @param Node $node of the element
     * @return array{?Message, ?Rows}
     * @throws Refused where the message cannot be read, or rows stand beside none
     */
    private static function messageOf(Node $node, string $text): array
    {
        $message = ($node->optional('message')?->bool() ?? false) ? Message::parse($text, $node->field('text')->path) : null;
        $rows = $node->optional('rows');
        if ($rows !== null && $message === null) {
            throw $rows->refused(Reason::FieldUnknown, 'stands beside a text that is no message; "message": true makes it one.');
        }

        return [$message, $rows === null ? null : Rows::fromNode($rows)];
    }

    public function messages(): array
    {
        return $this->message === null ? [] : [$this->message];
    }

    public function tells(): bool
    {
        return $this->message !== null;
    }
}
