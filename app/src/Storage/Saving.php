<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use UpperPane\App\Account\Who;

/** How things with revisions are saved: a write names the revision that it is based on, and what comes too late is kept aside. */
final readonly class Saving
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Transaction $transaction,
        private Record $record,
        private Who $who,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @template T of Revised
     * @param \Closure(): T $locked finds the thing, and locks it
     * @param array<string, mixed> $document
     * @param ?\Closure(T): mixed $also what else changes with it
     * @return Saved<T>
     */
    public function of(\Closure $locked, int $base, array $document, ?string $note = null, ?\Closure $also = null): Saved
    {
        return $this->transaction->of(function () use ($locked, $base, $document, $note, $also): Saved {
            $thing = $locked();
            if ($this->hasLanded($thing, $base, $document)) {
                return new Saved($thing, null);
            }
            [$now, $who] = [$this->clock->now(), $this->who->login()];
            if ($thing->revision() !== $base) {
                $this->entities->persist($thing->aside($document, $now, $who, "kept aside: based on revision $base"));
                $this->record->note(Did::KeptAside, $thing->about(), ['base' => $base]);

                return new Saved($thing, $base);
            }
            $thing->take($document, $now, $who);
            $also === null ?: $also($thing);
            $this->entities->persist($thing->asRevision($note));
            $this->record->note(Did::Saved, $thing->about(), ['revision' => $thing->revision(), 'note' => $note]);

            return new Saved($thing, null);
        });
    }

    /**
     * Whether this was saved before and its answer was lost on the way: it is asked for again, and is what stands there.
     *
     * @param array<string, mixed> $document
     */
    private function hasLanded(Revised $thing, int $base, array $document): bool
    {
        return $thing->revision() === $base + 1 && $thing->savedBy() === $this->who->login() && $thing->document() == $document;
    }
}
