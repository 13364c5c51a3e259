<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Display\SurveyedDisplay;

/** One handed-over version for a display: where its bytes lie, and what it was made from. */
#[ORM\Entity(repositoryClass: HandedReleaseRepository::class)]
#[ORM\UniqueConstraint(columns: ['display_id', 'number'])]
class HandedRelease
{
    #[ORM\Id]
    #[ORM\GeneratedValue]
    #[ORM\Column]
    public ?int $id = null;

    /**
     * @param int $number counts up for each display
     * @param string $sourceKind layout, playlist or media
     * @param array<mixed> $document the layout as it was handed over, refs and all
     */
    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false)]
        public readonly SurveyedDisplay $display,
        #[ORM\Column]
        public readonly int $number,
        #[ORM\Column(length: 64)]
        public readonly string $sha256,
        #[ORM\Column(length: 120)]
        public readonly string $file,
        #[ORM\Column]
        public readonly int $bytes,
        #[ORM\Column(length: 16)]
        public readonly string $sourceKind,
        #[ORM\Column(length: 80)]
        public readonly string $sourceId,
        #[ORM\Column(nullable: true)]
        public readonly ?int $sourceRevision,
        #[ORM\Column(length: 255)]
        public readonly string $name,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        public readonly \DateTimeImmutable $handedOverAt,
        #[ORM\Column(length: 80, nullable: true)]
        public readonly ?string $handedOverBy,
        #[ORM\Column(type: 'json')]
        public readonly array $document,
    ) {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'number' => $this->number,
            'sha256' => $this->sha256,
            'url' => '/' . $this->file,
            'bytes' => $this->bytes,
            'source' => ['kind' => $this->sourceKind, 'id' => $this->sourceId, 'revision' => $this->sourceRevision],
            'name' => $this->name,
            'handed_over_at' => $this->handedOverAt->format('Y-m-d\TH:i:s\Z'),
            'handed_over_by' => $this->handedOverBy,
        ];
    }
}
