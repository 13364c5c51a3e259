<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Paint\PaintLayer;
use UpperPane\Core\Media\Swatches;

/** An element that paints below its own words. */
interface OwnGround extends Element
{
    /**
     * What it may paint there by turns.
     *
     * @return list<list<PaintLayer>> each lowest first; none where its colours are not known
     */
    public function ownGrounds(Text $text, ?Swatches $swatches): array;
}
