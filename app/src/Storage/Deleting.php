<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use UpperPane\App\Http\Problem;

/** Takes things away, into the bin, once nothing holds to them any more. */
final readonly class Deleting
{
    /** @param iterable<Holding> $holdings */
    public function __construct(
        #[AutowireIterator(Holding::class)]
        private iterable $holdings,
        private EntityManagerInterface $entities,
        private Bin $bin,
        private Transaction $transaction,
        private Record $record,
    ) {
    }

    /** @throws Problem where something holds to it */
    public function of(Thing $thing): void
    {
        $this->transaction->of(function () use ($thing): void {
            [$rows, $named] = [[$this->entities->getClassMetadata($thing::class)->getTableName() => 'id = ?'], []];
            $about = $thing->about();
            foreach ($this->holdings as $holding) {
                $holding->letsGo($about);
                $rows += $holding->goesWith($about->kind);
                $named += $holding->forgets($about->kind);
            }
            $this->bin->put($about, $rows, $named);
            $this->record->note(Did::Deleted, $about);
        });
    }
}
