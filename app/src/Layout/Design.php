<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\DocumentType;
use UpperPane\App\Storage\Revised;
use UpperPane\Core\Handover\Documents;

/** A layout, playlist or schedule: its document as it stands, and the number of its revision. */
#[ORM\Entity]
#[ORM\Index(columns: ['kind', 'name'])]
class Design implements Revised
{
    #[ORM\Column]
    public int $revision = 1;

    /**
     * @param array<string, mixed> $document
     * @param ?string $displayId the display it is made for, or rules on
     * @param ?string $placeId the place that a schedule rules in; for which a template is free, at which a playlist is open for what is filled in
     */
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 80)]
        public readonly string $id,
        #[ORM\Column(length: 16, enumType: DesignKind::class)]
        public readonly DesignKind $kind,
        #[ORM\Column(length: 200)]
        public string $name,
        #[ORM\Column(type: DocumentType::NAME)]
        public array $document,
        #[ORM\Column(length: 80, nullable: true)]
        public ?string $displayId,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        public \DateTimeImmutable $savedAt,
        #[ORM\Column(length: 80, nullable: true)]
        public ?string $savedBy,
        #[ORM\Column(length: 80, nullable: true)]
        public ?string $placeId = null,
    ) {
    }

    public function about(): About
    {
        return new About($this->kind->value, $this->id, $this->name);
    }

    public function revision(): int
    {
        return $this->revision;
    }

    public function savedBy(): ?string
    {
        return $this->savedBy;
    }

    public function document(): array
    {
        return $this->document;
    }

    public function take(array $document, \DateTimeImmutable $at, ?string $by): void
    {
        $this->document = $document;
        $this->name = is_string($document['name'] ?? null) ? $document['name'] : $this->name;
        $this->revision++;
        $this->savedAt = $at;
        $this->savedBy = $by;
    }

    public function asRevision(?string $note = null): DesignRevision
    {
        return new DesignRevision($this->id, $this->revision, $this->document, $this->savedAt, $this->savedBy, $note);
    }

    public function aside(array $document, \DateTimeImmutable $at, ?string $by, string $note): DesignRevision
    {
        return new DesignRevision($this->id, null, $document, $at, $by, $note);
    }

    /** @return list<string> ids of the designs that its document names: refs of layouts and playlists, and what a schedule books */
    public function named(): array
    {
        return Documents::named($this->document)['designs'];
    }

    /** @return array<string, mixed> without the document */
    public function summary(): array
    {
        return [
            'id' => $this->id,
            'kind' => $this->kind->value,
            'name' => $this->name,
            'revision' => $this->revision,
            'display' => $this->displayId,
            'place' => $this->placeId,
            'canvas' => $this->document['canvas'] ?? null,
            'saved_at' => $this->savedAt->format('Y-m-d\TH:i:s\Z'),
            'saved_by' => $this->savedBy,
        ] + ($this->kind === DesignKind::Layout ? ['slots' => is_array($this->document['slots'] ?? null) ? count($this->document['slots']) : 0] : []);
    }
}
