<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/** One saved survey of a display. One without a number came too late and was kept aside. */
#[ORM\Entity]
#[ORM\Index(columns: ['display_id', 'id'])]
class SurveyRevision
{
    #[ORM\Id]
    #[ORM\GeneratedValue]
    #[ORM\Column]
    public ?int $id = null;

    /** @param array<mixed> $document */
    public function __construct(
        #[ORM\Column(length: 80)]
        public readonly string $displayId,
        #[ORM\Column(nullable: true)]
        public readonly ?int $number,
        #[ORM\Column(type: 'json')]
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
    public function toArray(): array
    {
        return [
            'id' => $this->id,
            'number' => $this->number,
            'saved_at' => $this->savedAt->format('Y-m-d\TH:i:s\Z'),
            'saved_by' => $this->savedBy,
            'note' => $this->note,
            'document' => $this->document,
        ];
    }
}
