<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;

/** Displays hang in another place from now on. */
final readonly class MoveDisplays
{
    public function __construct(private Displays $displays, private Places $places, private Transaction $transaction, private Record $record)
    {
    }

    /** @param list<SurveyedDisplay> $displays */
    public function of(array $displays, Place $place): void
    {
        $this->transaction->of(function () use ($displays, $place): void {
            $place = $this->places->same($place);
            foreach (array_map($this->displays->same(...), $displays) as $display) {
                if ($display->place !== $place) {
                    $this->record->note(Did::Moved, $display->about(), ['from' => $display->place->name, 'to' => $place->name]);
                    $display->hang($place);
                }
            }
        });
    }
}
