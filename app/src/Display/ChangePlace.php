<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Setting\Settings;

/** A place is renamed, put into another one, or says another time zone. */
final readonly class ChangePlace
{
    public function __construct(private Places $places, private Displays $displays, private Transaction $transaction, private Record $record)
    {
    }

    public function of(Place $place, string $name, ?Place $parent, ?string $timezone): Place
    {
        return $this->transaction->of(function () use ($place, $name, $parent, $timezone): Place {
            $place = $this->places->same($place);
            $parent = $parent === null ? null : $this->places->same($parent);
            $zone = static fn (mixed $one): string => is_string($one) ? $one : 'inherited';
            $was = $place->settings[Settings::TIMEZONE] ?? null;
            $what = array_keys(array_filter([
                sprintf('named "%s", before "%s"', $name, $place->name) => $name !== $place->name,
                sprintf('in "%s", before in "%s"', $parent->name ?? 'the estate', $place->parent->name ?? 'the estate') => $parent !== $place->parent,
                sprintf('time zone %s, before %s', $zone($timezone), $zone($was)) => $timezone !== $was,
            ]));
            if ($what === []) {
                return $place;
            }
            [$place->name, $place->parent] = [$name, $parent];
            $place->settings = ($timezone === null ? [] : [Settings::TIMEZONE => $timezone]) + array_diff_key($place->settings, [Settings::TIMEZONE => 1]);
            // What holds on displays in it depends on what it states.
            foreach ($this->displays->hangingIn($this->places->in($place)) as $display) {
                $display->surveyed();
            }
            $this->record->note(Did::Changed, $place->about(), ['what' => implode('; ', $what)]);

            return $place;
        });
    }
}
