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

    /**
     * What was handed over of a design, by itself or within something else, by the numbers of its revisions: to how many displays, when last (UTC),
     * and on how many of them it stands now.
     *
     * @return array<int, array{displays: int, last: string, now: int}>
     */
    public function handedOver(string $design): array;
}
