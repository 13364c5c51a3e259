<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use UpperPane\App\Storage\Reached;

/**
 * The tree of places.
 *
 * @extends Reached<Place>
 */
final readonly class Places extends Reached
{
    protected static function entity(): string
    {
        return Place::class;
    }

    protected static function kind(): string
    {
        return 'place';
    }

    protected static function unknown(): string
    {
        return 'no place of the estate';
    }

    /** @return list<Place> in the order of the estate */
    public function all(): array
    {
        return $this->asked($this->within('x')->orderBy('x.position')->addOrderBy('x.id'));
    }

    /** @return list<Place> it, and those that lie in it */
    public function in(Place $place): array
    {
        return array_values(array_filter($this->all(), static fn (Place $one): bool => $one->isIn($place)));
    }
}
