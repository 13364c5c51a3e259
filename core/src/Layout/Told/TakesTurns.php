<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

/** An element that is composed, and may be one thing after the other: as data make it, or in one language after the other. */
interface TakesTurns extends ReadsData
{
    /** As data make it; null where they do not. */
    public function inTurn(): ?InTurn;

    /** In several languages; null where it is shown in one. */
    public function inLanguages(): ?InLanguages;
}
