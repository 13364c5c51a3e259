<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\Core\Data\Feeds;

/** Who knows what the sources of data have told. */
interface Feeding
{
    /**
     * As it is told by now, whatever was told before.
     *
     * @param int $atMs for which it is read, Unix ms
     */
    public function now(int $atMs): Feeds;

    /**
     * As screens go on telling it: what was told before, and from when on the newest counts.
     *
     * @param int $atMs for which it is read, Unix ms
     */
    public function goingOn(int $atMs): Feeds;

    /** The same for as long as both tell the same. */
    public function key(): string;
}
