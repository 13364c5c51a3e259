<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use UpperPane\App\Http\Problem;

/** Takes things away, into the bin, once nothing holds to them any more. */
final readonly class Deleting
{
    /** @param iterable<Holding> $holdings */
    public function __construct(
        #[AutowireIterator(Holding::class)]
        private iterable $holdings,
        private Bin $bin,
        private Transaction $transaction,
    ) {
    }

    /**
     * @param string $table of the thing itself
     * @throws Problem where something holds to it
     */
    public function of(string $kind, string $id, string $name, string $table, ?string $by): void
    {
        $this->transaction->of(function () use ($kind, $id, $name, $table, $by): void {
            [$rows, $named] = [[$table => 'id = ?'], []];
            foreach ($this->holdings as $holding) {
                $holding->letsGo($kind, $id, $name);
                $rows += $holding->goesWith($kind);
                $named += $holding->forgets($kind);
            }
            $this->bin->put($kind, $id, $name, $rows, $by, $named);
        });
    }
}
