<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Revised;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Setting\Resolved;
use UpperPane\Core\Setting\Settings;
use UpperPane\Core\Time\OpeningHours;

/** A display as it was surveyed, the place where it hangs, and what is handed over to it. */
#[ORM\Entity]
class SurveyedDisplay implements Revised
{
    /** Of the release that stands on it (Handover\HandedRelease). */
    #[ORM\Column(nullable: true)]
    public ?int $currentId = null;

    #[ORM\Column]
    public int $revision = 1;

    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $savedAt = null;

    #[ORM\Column(length: 80, nullable: true)]
    public ?string $savedBy = null;

    /** Until when its players show who they are, instead of what is handed over. */
    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $alignmentUntil = null;

    /** Until when its players tell at once what its sensors say. */
    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $learnsUntil = null;

    /** @var array<string, mixed> what lists say of it, so that they need not read the whole document */
    #[ORM\Column(type: 'json')]
    public array $summary;

    /** Changes with all that a release for it depends on: raster, panels, outputs. */
    #[ORM\Column(length: 64)]
    public string $shape;

    /** The same for displays that differ in nothing but their ids and names. */
    #[ORM\Column(length: 64)]
    public string $alike;

    /** @var array<string, mixed> what it states itself (core/src/Setting/Settings.php) */
    #[ORM\Column(type: 'json')]
    public array $settings = [];

    /** @var array<string, mixed> what holds on it (Resolved::settled), and its time zone */
    #[ORM\Column(type: 'json')]
    public array $settled;

    /** @param array<mixed> $document in the format `upper-pane/display@1` */
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 80)]
        public readonly string $id,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false)]
        public Place $place,
        #[ORM\Column(type: 'json')]
        public array $document,
        #[ORM\Column]
        public int $position = 0,
    ) {
        $this->surveyed();
    }

    /** As it plays: on the clock of its place. */
    public function display(): Display
    {
        $timezone = $this->settled[Settings::TIMEZONE] ?? null;

        return Display::fromArray((is_string($timezone) ? [Settings::TIMEZONE => $timezone] : []) + $this->document);
    }

    /** Of the clock on which it plays: that of its place. */
    public function timezone(): string
    {
        $timezone = $this->settled[Settings::TIMEZONE] ?? null;

        return is_string($timezone) ? $timezone : $this->asSurveyed()->timezone;
    }

    /** When it is open where it hangs; null where nobody says so. */
    public function hours(): ?OpeningHours
    {
        $hours = $this->settled[Settings::HOURS] ?? [];

        return $hours === [] ? null : OpeningHours::fromNode(Node::root($hours));
    }

    /** As it was surveyed. */
    public function asSurveyed(): Display
    {
        return Display::fromArray($this->document);
    }

    /** What holds on it: what it states itself, and what comes from its places. */
    public function resolved(): Resolved
    {
        return $this->place->resolved()->below($this->id, Settings::fromNode(Node::root($this->settings), true));
    }

    public function about(): About
    {
        return new About('display', $this->id, is_string($this->document['name'] ?? null) ? $this->document['name'] : $this->id);
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

    public function asRevision(?string $note): SurveyRevision
    {
        return new SurveyRevision($this->id, $this->revision, $this->document, $this->savedAt ?? new \DateTimeImmutable('@0'), $this->savedBy, $note);
    }

    public function aside(array $document, \DateTimeImmutable $at, ?string $by, string $note): SurveyRevision
    {
        return new SurveyRevision($this->id, null, $document, $at, $by, $note);
    }

    /** A new survey. */
    public function take(array $document, \DateTimeImmutable $at, ?string $by): void
    {
        $this->document = $document;
        $this->revision++;
        $this->savedAt = $at;
        $this->savedBy = $by;
        $this->surveyed();
    }

    public function hang(Place $place): void
    {
        $this->place = $place;
        $this->surveyed();
    }

    /** Works out anew what holds on it: where its place, or it itself, states something else. */
    public function settle(): void
    {
        $resolved = $this->resolved();
        if (($resolved->timezone() ?? $this->document[Settings::TIMEZONE] ?? null) !== ($this->settled[Settings::TIMEZONE] ?? null)) {
            $this->surveyed();

            return;
        }
        $this->settled = array_replace($this->settled, $resolved->settled());
        $this->alike = Summary::alike(['settled' => $this->settled] + $this->document);
    }

    /** Works out anew what lists say of it, after a new survey. */
    public function surveyed(): void
    {
        $display = $this->asSurveyed();
        $resolved = $this->resolved();
        $this->settled = [Settings::TIMEZONE => $resolved->timezone() ?? $display->timezone] + $resolved->settled();
        $this->summary = [Settings::TIMEZONE => $this->settled[Settings::TIMEZONE]] + Summary::of($display, $resolved->timezone());
        $this->shape = Summary::shape($display);
        $this->alike = Summary::alike(['settled' => $this->settled] + $this->document);
    }
}
