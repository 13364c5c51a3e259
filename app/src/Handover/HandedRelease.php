<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Storage\DocumentType;

/**
 * One handed-over version for a display: the revisions that it was made from, which never change, and where its bytes lie.
 *
 * Where anything in it comes and goes, these are compiled anew for the days to come (Plans).
 */
#[ORM\Entity(repositoryClass: HandedReleaseRepository::class)]
#[ORM\UniqueConstraint(columns: ['display_id', 'number'])]
#[ORM\Index(columns: ['handing_id'])]
#[ORM\Index(columns: ['planned_until'])]
#[ORM\Index(name: 'made_of', columns: ['made_of'])]
class HandedRelease
{
    #[ORM\Id]
    #[ORM\GeneratedValue]
    #[ORM\Column]
    public ?int $id = null;

    /**
     * @param int $number counts up for each display
     * @param string $sourceKind layout, playlist or media
     * @param ?array<mixed> $document the source as it was handed over, refs and all; null where its revision keeps it
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
        #[ORM\Column(type: DocumentType::NAME, nullable: true)]
        public readonly ?array $document,
        /** Of the display when it was handed over: where it changed since, the release is older. */
        #[ORM\Column(length: 64, nullable: true)]
        public readonly ?string $shape = null,
        /** Names the revisions of all designs that are in it (MadeOf): where one of them changed since, the release is older. */
        #[ORM\Column(length: 32, nullable: true, options: ['fixed' => true, 'charset' => 'ascii', 'collation' => 'ascii_bin'])]
        public readonly ?string $madeOf = null,
        /** Until when it says what plays by a schedule, and the standby from then on. */
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
        public readonly ?\DateTimeImmutable $plannedUntil = null,
        #[ORM\Column(length: 255, nullable: true)]
        public readonly ?string $plannedThen = null,
        /** Whether its bytes are a manifest of sheets; before there were any, all was in one piece. */
        #[ORM\Column]
        public readonly bool $manifest = false,
        /** SHA-256 of the same in one piece, where a page has it so that reads no manifests. */
        #[ORM\Column(length: 64, nullable: true)]
        public readonly ?string $wholeSha256 = null,
        /** @var ?list<string> ids of the schedules that ruled, the nearest first; null where that was not recorded */
        #[ORM\Column(type: 'json', nullable: true)]
        public readonly ?array $ruling = null,
        /** @var ?array<string, mixed> what held on its display, as far as it decides how it looks: where that changed since, the release is older */
        #[ORM\Column(type: 'json', nullable: true)]
        public readonly ?array $settings = null,
        /** Revision of the survey of its display. */
        #[ORM\Column(nullable: true)]
        public readonly ?int $surveyRevision = null,
        /** Why it could not be planned for the days to come. */
        #[ORM\Column(length: 500, nullable: true)]
        public readonly ?string $planTrouble = null,
        #[ORM\Column(length: 26, nullable: true)]
        public readonly ?string $handingId = null,
        /** Number of the earlier release of its display that it put back. */
        #[ORM\Column(nullable: true)]
        public readonly ?int $putsBack = null,
        /** Whether what it was made from is gone, so that it cannot be put back (Storage\Prune). */
        #[ORM\Column]
        public readonly bool $pruned = false,
    ) {
    }

    /**
     * What it was made from; null where that was not recorded.
     *
     * @param array<int> $parts revisions by the ids of their designs
     */
    public function contents(array $parts): ?Contents
    {
        if ($this->madeOf === null && $this->sourceKind !== 'media') {
            return null;
        }

        return new Contents(Playable::kept($this->sourceKind, $this->sourceId, $this->sourceRevision, $this->name), $parts, $this->ruling, $this->document, $this->settings ?? []);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return self::told([
            'number' => $this->number,
            'sha256' => $this->sha256,
            'file' => $this->file,
            'bytes' => $this->bytes,
            'source_kind' => $this->sourceKind,
            'source_id' => $this->sourceId,
            'source_revision' => $this->sourceRevision,
            'name' => $this->name,
            'handed_over_at' => $this->handedOverAt->format('Y-m-d H:i:s'),
            'handed_over_by' => $this->handedOverBy,
            'planned_until' => $this->plannedUntil?->format('Y-m-d H:i:s'),
            'planned_then' => $this->plannedThen,
            'puts_back' => $this->putsBack,
            'pruned' => $this->pruned ? 1 : 0,
        ]);
    }

    /**
     * The same of a row of the table.
     *
     * @param array<string, mixed> $row
     * @return array<string, mixed>
     */
    public static function told(array $row): array
    {
        return [
            'number' => $row['number'],
            'sha256' => $row['sha256'],
            'url' => '/' . (is_string($row['file']) ? $row['file'] : ''),
            'bytes' => $row['bytes'],
            'source' => ['kind' => $row['source_kind'], 'id' => $row['source_id'], 'revision' => $row['source_revision']],
            'name' => $row['name'],
            'handed_over_at' => is_string($row['handed_over_at']) ? strtr($row['handed_over_at'], ' ', 'T') . 'Z' : null,
            'handed_over_by' => $row['handed_over_by'],
            'planned' => is_string($row['planned_until'] ?? null) ? ['until' => strtr($row['planned_until'], ' ', 'T') . 'Z', 'then' => $row['planned_then'] ?? null] : null,
            'puts_back' => $row['puts_back'] ?? null,
            'gone' => ($row['pruned'] ?? 0) === 1,
        ];
    }
}
