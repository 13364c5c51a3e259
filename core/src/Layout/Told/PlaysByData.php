<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Zone\RowByRow;
use UpperPane\Core\Time\WhenInTime;

/** An element that plays things of which data say when, or how many. */
interface PlaysByData extends Element
{
    /** @return list<array{string, WhenInTime}> what plays only while something holds, in words, and what that is */
    public function conditions(): array;

    /** @return list<array{string, RowByRow}> what plays row by row, in words, and what rows make of it */
    public function rowByRow(): array;
}
