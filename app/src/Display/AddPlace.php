<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Symfony\Component\Uid\Ulid;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Setting\Settings;

final readonly class AddPlace
{
    public function __construct(private Places $places, private Transaction $transaction, private Record $record)
    {
    }

    public function of(string $name, ?Place $parent, ?string $timezone): Place
    {
        return $this->transaction->of(function () use ($name, $parent, $timezone): Place {
            $settings = $timezone === null ? [] : [Settings::TIMEZONE => $timezone];
            $place = new Place(strtolower((string) new Ulid()), $name, $parent === null ? null : $this->places->same($parent), count($this->places->all()), $settings);
            $this->places->add($place);
            $this->record->note(Did::Made, $place->about());

            return $place;
        });
    }
}
