<?php

declare(strict_types=1);

namespace UpperPane\App\Estate;

use Doctrine\ORM\Mapping as ORM;

/** A node of the tree that displays hang in. */
#[ORM\Entity]
class Place
{
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 80)]
        public readonly string $id,
        #[ORM\Column(length: 120)]
        public string $name,
        #[ORM\ManyToOne]
        public ?Place $parent = null,
        #[ORM\Column]
        public int $position = 0,
    ) {
    }

    /** @return list<string> names from the estate down to this place */
    public function way(): array
    {
        return [...($this->parent?->way() ?? []), $this->name];
    }

    /** Whether this place is $other or lies in it. */
    public function isIn(Place $other): bool
    {
        return $this === $other || ($this->parent?->isIn($other) ?? false);
    }
}
