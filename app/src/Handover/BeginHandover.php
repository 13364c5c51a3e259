<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\App\Http\Problem;

/** Begins a handing of what was offered, unless something stops it. */
final readonly class BeginHandover
{
    public function __construct(private Handings $handings)
    {
    }

    /**
     * @param list<Offer> $offers
     * @param array<int> $back numbers of the releases that are put back, by display
     * @throws Problem where something stops it: then nothing is handed over
     */
    public function of(string $name, array $offers, array $back = []): Handing
    {
        foreach ($offers as $offer) {
            if (($offer->contents === null && $offer->asItWas === null) || $offer->findings->stopsHandover()) {
                throw new Problem(409, 'handover.stopped', sprintf(
                    'Nothing is handed over. %s: %s',
                    $offer->first->display()->name,
                    $offer->findings->all[0]->message,
                ), more: ['offers' => array_map(static fn (Offer $offer): array => $offer->toArray(), $offers)]);
            }
        }

        return $this->handings->begin($name, array_map(static fn (Offer $offer): Order => Order::of($offer, $back), $offers));
    }
}
