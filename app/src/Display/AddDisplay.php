<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Psr\Clock\ClockInterface;
use UpperPane\App\Account\Who;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;

final readonly class AddDisplay
{
    /** What stands in an address where the id of a display stands otherwise. */
    private const RESERVED = ['matches', 'from-table', 'analysis', 'act', 'move'];

    public function __construct(private Displays $displays, private Places $places, private Transaction $transaction, private Record $record, private Who $who, private ClockInterface $clock)
    {
    }

    /**
     * @param array<string, mixed> $document its id is made from the name where it has none
     * @param int $before how many were added in this transaction before it
     * @param ?string $like name of the one that it is a copy of
     * @throws DocumentRefused
     */
    public function of(Place $place, array $document, int $before = 0, ?string $like = null): SurveyedDisplay
    {
        return $this->transaction->of(function () use ($place, $document, $before, $like): SurveyedDisplay {
            $id = is_string($document['id'] ?? null) ? $document['id'] : $this->freeId(is_string($document['name'] ?? null) ? $document['name'] : '');
            $document = ['format' => Display::FORMAT, 'id' => $id] + $document;
            if ($this->isTaken(Display::fromArray($document)->id)) {
                throw DocumentRefused::because(Reason::IdTwice, sprintf('A display "%s" is there already.', $id), '/document/id');
            }
            $display = new SurveyedDisplay($id, $this->places->same($place), $document, $this->displays->lastPosition() + 1 + $before);
            $display->savedAt = $this->clock->now();
            $display->savedBy = $this->who->login();
            $this->displays->keep($display);
            $this->record->note(Did::Made, $display->about(), ['from' => $like]);

            return $display;
        });
    }

    private function freeId(string $name): string
    {
        $stem = mb_substr(trim((string) preg_replace('/[^a-z0-9]+/', '-', strtolower((string) iconv('UTF-8', 'ASCII//TRANSLIT//IGNORE', $name))), '-'), 0, 60) ?: 'display';
        for ($number = 1, $id = $stem; $this->isTaken($id); $id = "$stem-" . ++$number) {
        }

        return $id;
    }

    private function isTaken(string $id): bool
    {
        return in_array($id, self::RESERVED, true) || $this->displays->isTaken($id);
    }
}
