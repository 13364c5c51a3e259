<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

/** Where designs stand. */
interface Showing
{
    /**
     * On how many displays a design stands, by its id, handed over by itself or within something else; the names of the first of them, in the order of
     * the estate; on how many of them it, or anything in it, says something else by now; and what is to be handed over again for that.
     *
     * @return array<array{displays: int, older: int, some: list<string>, again: ?array{kind: string, id: string}}>
     */
    public function standing(): array;
}
