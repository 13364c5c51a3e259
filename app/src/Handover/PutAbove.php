<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Refused;

/** The overlays that hold on displays by now, above what stands there: nothing else is handed over with them. */
final readonly class PutAbove
{
    public function __construct(private Offers $offers, private Programmes $programmes, private HandedReleaseRepository $releases)
    {
    }

    /**
     * @param list<string> $displays ids
     * @return list<Offer> of those on which something stands, and something else would lie above
     * @throws Refused
     */
    public function offers(array $displays): array
    {
        $contents = function (SurveyedDisplay $display): Contents {
            $contents = $this->releases->contentsOn($display);

            return $contents === null
                ? throw new Problem(409, 'above.dark', sprintf('Nothing that is known was handed over to "%s" yet: hand something over there first.', $display->about()->name))
                : $this->programmes->under($contents, $display);
        };

        return array_values(array_filter($this->offers->of($contents, $this->releases->standOn($displays)), static fn (Offer $offer): bool => !$offer->isUnchanged));
    }
}
