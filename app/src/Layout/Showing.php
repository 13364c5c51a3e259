<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

/** Where designs stand. */
interface Showing
{
    /**
     * On how many displays what stands, by the id of its source; on how many of them the source, or anything in it, says something else by now; and
     * the names of some of them, in the order of the estate.
     *
     * @return array<string, array{displays: int, older: int, some: list<string>}>
     */
    public function standing(): array;
}
