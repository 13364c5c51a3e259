<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Layout\Paint\PaintLayer;
use UpperPane\Core\Media\Swatches;
use UpperPane\Core\Time\Item;

/** An element that paints the canvas, so that words above it stand on its colours. */
interface Paints extends Element
{
    /** @return list<Item> what it shows by turns; none where it is always the same */
    public function turns(): array;

    /**
     * @param ?Item $due of its turns; null for the first
     * @return ?list<PaintLayer> lowest first; null where its colours are not known
     */
    public function paint(?Item $due, ?Swatches $swatches): ?array;

    /** Whether it is opaque all over, whatever it shows: then nothing below it is seen. */
    public function isSolid(): bool;
}
