<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Doctrine\ORM\EntityManagerInterface;
use UpperPane\App\Account\Staff;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;

/** A place in which nothing hangs or lies is taken away. */
final readonly class RemovePlace
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Places $places,
        private Staff $staff,
        private Displays $displays,
        private Transaction $transaction,
        private Record $record,
    ) {
    }

    public function of(Place $place): void
    {
        $this->transaction->of(function () use ($place): void {
            $place = $this->places->same($place);
            $displays = count($this->displays->hangingIn([$place]));
            $places = count($this->places->in($place)) - 1;
            if ($displays + $places > 0) {
                throw new Problem(409, 'place.used', sprintf('"%s" has %d displays and %d places in it. Move them first.', $place->name, $displays, $places));
            }
            $this->staff->forget($place->id);
            $this->record->note(Did::Deleted, $place->about());
            $this->entities->remove($place);
        });
    }
}
