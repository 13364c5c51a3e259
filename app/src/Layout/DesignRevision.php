<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Storage\DocumentType;

/** One saved state of a design. One without a number came too late and was kept aside. */
#[ORM\Entity]
#[ORM\Index(columns: ['design_id', 'saved_at'])]
#[ORM\UniqueConstraint(columns: ['design_id', 'number'])]
class DesignRevision
{
    #[ORM\Id]
    #[ORM\GeneratedValue]
    #[ORM\Column]
    public ?int $id = null;

    /** @param array<string, mixed> $document */
    public function __construct(
        #[ORM\Column(length: 80)]
        public readonly string $designId,
        #[ORM\Column(nullable: true)]
        public readonly ?int $number,
        #[ORM\Column(type: DocumentType::NAME)]
        public readonly array $document,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        public readonly \DateTimeImmutable $savedAt,
        #[ORM\Column(length: 80, nullable: true)]
        public readonly ?string $savedBy,
        #[ORM\Column(length: 200, nullable: true)]
        public readonly ?string $note = null,
    ) {
    }

    /** @return array<string, mixed> */
    public function summary(): array
    {
        return [
            'id' => $this->id,
            'number' => $this->number,
            'saved_at' => $this->savedAt->format('Y-m-d\TH:i:s\Z'),
            'saved_by' => $this->savedBy,
            'note' => $this->note,
        ];
    }
}
