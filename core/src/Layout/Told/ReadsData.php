<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Time\Turns;

/** An element that is composed, and may tell rows of data as they come and go. */
interface ReadsData extends Element
{
    /** What it reads; null where it reads nothing. */
    public function reads(): ?Reading;

    /**
     * What it tells by fallbacks, of the rows that are chosen when it is looked at.
     *
     * @return array{names: list<string>, count: int, row: int}|null the arguments, how many values, and the first row; null where nothing is
     */
    public function missing(): ?array;

    /** What it goes through as rows come and go; null where it stays as it is. */
    public function dataTurns(): ?Turns;
}
