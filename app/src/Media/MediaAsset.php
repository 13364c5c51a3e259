<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Thing;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Media\MediaFindings;

/** A picture or film that was brought in: first waiting, then ready or refused. */
#[ORM\Entity]
#[ORM\Index(columns: ['brought_in_at'])]
class MediaAsset implements Thing
{
    public const WAITING = 'waiting';
    public const PROBING = 'probing';
    public const READY = 'ready';
    public const REFUSED = 'refused';
    /** What went wrong is no fault of the file: it may be tried again. */
    public const FAILED = 'failed';

    #[ORM\Column(length: 16)]
    public string $state = self::WAITING;

    #[ORM\Column(length: 500, nullable: true)]
    public ?string $refusal = null;

    #[ORM\Column(nullable: true)]
    public ?int $width = null;

    #[ORM\Column(nullable: true)]
    public ?int $height = null;

    #[ORM\Column(nullable: true)]
    public ?int $lengthMs = null;

    #[ORM\Column(length: 80, nullable: true)]
    public ?string $type = null;

    #[ORM\Column(length: 64, nullable: true)]
    public ?string $sha256 = null;

    #[ORM\Column(length: 120, nullable: true)]
    public ?string $file = null;

    #[ORM\Column(length: 120, nullable: true)]
    public ?string $thumbnail = null;

    /** The source of data whose rows name it, by its id; null where somebody brought it in. */
    #[ORM\Column(length: 80, nullable: true)]
    public ?string $ofSource = null;

    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 80)]
        public readonly string $id,
        #[ORM\Column(length: 255)]
        public string $name,
        #[ORM\Column(type: Types::BIGINT)]
        public int $bytes,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        public \DateTimeImmutable $broughtInAt,
        #[ORM\Column(length: 80, nullable: true)]
        public ?string $broughtInBy = null,
    ) {
    }

    public function about(): About
    {
        return new About('media', $this->id, $this->name);
    }

    public function refuse(string $why): void
    {
        $this->state = self::REFUSED;
        $this->refusal = mb_strimwidth($why, 0, 500, '...');
    }

    public function fail(string $why): void
    {
        $this->refuse($why);
        $this->state = self::FAILED;
    }

    public function ready(Probed $probed, string $sha256, string $file, string $thumbnail): void
    {
        $this->state = self::READY;
        $this->refusal = null;
        $this->width = $probed->size->width;
        $this->height = $probed->size->height;
        $this->lengthMs = $probed->lengthMs;
        $this->type = $probed->type;
        $this->sha256 = $sha256;
        $this->file = $file;
        $this->thumbnail = $thumbnail;
    }

    /** Why it cannot be played; null of one that can, or that is not looked into yet. */
    public function finding(): ?Finding
    {
        return match ($this->state) {
            self::REFUSED => MediaFindings::refused($this->name, $this->refusal),
            self::FAILED => MediaFindings::failed($this->name, $this->refusal),
            default => null,
        };
    }

    /** As layouts and playlists name it; null before it is ready. */
    public function media(): ?Media
    {
        return $this->width === null || $this->height === null
            ? null
            : Media::of($this->name, Size::px($this->width, $this->height), $this->lengthMs, $this->id);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'state' => $this->state,
            'refusal' => $this->refusal,
            'kind' => $this->lengthMs === null ? 'picture' : 'film',
            'width' => $this->width,
            'height' => $this->height,
            'length_ms' => $this->lengthMs,
            'bytes' => $this->bytes,
            'type' => $this->type,
            'url' => $this->file === null ? null : '/' . $this->file,
            'thumbnail' => $this->thumbnail === null ? null : '/' . $this->thumbnail,
            'brought_in_at' => $this->broughtInAt->format('Y-m-d\TH:i:s\Z'),
        ];
    }
}
