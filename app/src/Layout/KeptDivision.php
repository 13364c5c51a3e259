<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Thing;

/** A division that somebody kept for the team to begin with. */
#[ORM\Entity]
class KeptDivision implements Thing
{
    /** @param array<string, mixed> $recipe as it stands in a layout */
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 26)]
        public readonly string $id,
        #[ORM\Column(length: 200)]
        public readonly string $name,
        #[ORM\Column(type: 'json')]
        public readonly array $recipe,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        public readonly \DateTimeImmutable $savedAt,
        #[ORM\Column(length: 80, nullable: true)]
        public readonly ?string $savedBy,
    ) {
    }

    public function about(): About
    {
        return new About('division', $this->id, $this->name);
    }
}
