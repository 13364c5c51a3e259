<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

/** An element whose content has a shape of its own and is fitted into its box. */
interface FitsContent extends Element
{
    /** @return list<FittedContent> each thing that it may show */
    public function fitted(): array;
}
