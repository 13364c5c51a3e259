<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;

/** One thing as it is fitted into the box of an element. */
final readonly class FittedContent
{
    /**
     * @param ?string $item id of the item of the list that it is
     * @param bool $isDrawn whether it is drawn anew at any size, as a layout is, and never looks soft
     */
    public function __construct(public ?string $item, public string $name, public Fit $fit, public FitMode $mode, public bool $isDrawn = false)
    {
    }
}
