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
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Time\Turns;

/** An element whose one text may be a message: over the first of its rows, where it has any. It has a message, rows, and what it is in turn. */
trait TellsMessage
{
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

    public function reads(): ?Reading
    {
        return $this->inTurn?->reading;
    }

    public function dataTurns(): ?Turns
    {
        return $this->inTurn?->turns();
    }

    public function missing(): ?array
    {
        $reading = $this->inTurn?->reading;

        return $reading?->missing(function (array $row) use ($reading): array {
            $teller = $reading->teller($row);
            array_map($teller->tell(...), $this->messages());

            return $teller->missing();
        }, $this->tellsAll());
    }

    public function inTurn(): ?InTurn
    {
        return $this->inTurn;
    }

    /**
     * The same told as it is at the instant at which its layout is looked at.
     *
     * @param string $path JSON Pointer to the element
     * @throws Refused
     */
    private function toldInTurn(Composer $composer, string $path): static
    {
        if ($this->message === null) {
            return $this;
        }
        if ($this->rows === null) {
            return $this->told($composer->row());
        }
        $reading = $composer->reading($this->rows, "$path/rows", $this->tellsAll());
        $at = fn (int $ms): TellsRows => $this->over($reading, $ms);
        $faces = $composer->surroundings->faces;

        return $this->over($reading, $reading->atMs)->in(new InTurn($reading, $at, static fn (TellsRows $told): ?int => $told instanceof self ? $told->lastsMs($faces) : null));
    }

    /** Whether it tells all rows; else the first alone. */
    private function tellsAll(): bool
    {
        return false;
    }

    /** How long it goes through what it says, ms; null without end. */
    private function lastsMs(?FaceMetrics $faces): ?int
    {
        return null;
    }

    /** As it is told at an instant, Unix ms: over the first row. */
    private function over(Reading $reading, int $ms): static
    {
        return $this->told($reading->teller($reading->rowsAt($ms)[0] ?? []));
    }
}
