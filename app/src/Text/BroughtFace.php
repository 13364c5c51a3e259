<?php

declare(strict_types=1);

namespace UpperPane\App\Text;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Thing;

/** A type face that somebody brought in, beside those of the house. */
#[ORM\Entity]
#[ORM\UniqueConstraint(columns: ['family', 'weight'])]
class BroughtFace implements Thing
{
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 26)]
        public readonly string $id,
        #[ORM\Column(length: 80)]
        public readonly string $family,
        #[ORM\Column]
        public readonly int $weight,
        #[ORM\Column(length: 120)]
        public readonly string $file,
        #[ORM\Column(length: 64)]
        public readonly string $sha256,
        #[ORM\Column]
        public readonly int $bytes,
        #[ORM\Column]
        public readonly float $capShare,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        public readonly \DateTimeImmutable $broughtInAt,
        #[ORM\Column(length: 80, nullable: true)]
        public readonly ?string $broughtInBy,
    ) {
    }

    public function about(): About
    {
        return new About('face', $this->id, "$this->family $this->weight");
    }

    /** @return array{id: string, family: string, weight: int, url: string, sha256: string, bytes: int, cap_share: float, brought_in_by: ?string} */
    public function toArray(): array
    {
        return [
            'id' => $this->id,
            'family' => $this->family,
            'weight' => $this->weight,
            'url' => '/' . $this->file,
            'sha256' => $this->sha256,
            'bytes' => $this->bytes,
            'cap_share' => $this->capShare,
            'brought_in_by' => $this->broughtInBy,
        ];
    }
}
