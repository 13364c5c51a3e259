<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

/** Where designs stand. */
interface Showing
{
    /**
     * What stands on which displays, by the id of its source; `older` where the source, or anything in it, says something else by now.
     *
     * @return array<string, list<array{display: string, display_name: string, number: int, revision: ?int, older: bool}>>
     */
    public function currentBySource(): array;
}
