<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Composer;

/**
 * An element whose one text may be a message: over the first of its rows, where it has any; and may stand there in several languages.
 *
 * It has a message, rows, what it is in turn, what it says in several languages, and what it is in those.
 */
trait TellsMessage
{
    use ToldInTurn;

    /**
     * @param int $longest characters of its text
     * @return array<string, Field>
     */
    private static function messageFields(int $longest): array
    {
        return Languages::fields($longest) + [
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
        return $this->message === null ? [] : [$this->message, ...array_values(array_filter($this->languages->messages ?? []))];
    }

    public function inLanguages(): ?InLanguages
    {
        return $this->inLanguages;
    }

    /**
     * The same as it is told at the instant at which its layout is looked at, in each of the languages in which it is shown there.
     *
     * @param string $path JSON Pointer to the element
     * @throws Refused
     */
    private function toldInLanguages(Composer $composer, string $path): static
    {
        if ($this->languages === null) {
            return $this->toldInTurn($composer, $path);
        }
        $elements = [];
        foreach ($composer->surroundings->speaking->among(array_map(strval(...), array_keys($this->languages->texts))) as $language) {
            $elements[$language] = $this->worded($this->languages->texts[$language], $this->languages->messages[$language])->toldInTurn($composer, $path, $language);
        }
        $first = $elements[array_key_first($elements)];

        return count($elements) === 1 ? $first : $first->spoken(new InLanguages($elements, $this->languages->turnMs));
    }

    private function in(InTurn $inTurn): static
    {
        return $this->going($inTurn, $this->inLanguages);
    }

    private function spoken(InLanguages $inLanguages): static
    {
        return $this->going($this->inTurn, $inLanguages);
    }

    /** The same, being so much in turn and in several languages. */
    abstract private function going(?InTurn $inTurn, ?InLanguages $inLanguages): static;

    public function tells(): bool
    {
        return $this->message !== null;
    }
}
