<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\App\Http\Problem;
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

    /**
     * As it was told once, of some sources; of all others as it is told by now.
     *
     * @param array<int> $fetches which fetch of each, by the id of the source
     * @param int $atMs for which it is read, Unix ms
     * @throws Problem where one of them is not kept any more
     */
    public function asOf(array $fetches, int $atMs): Feeds;

    /** The same for as long as both tell the same. */
    public function key(): string;
}
