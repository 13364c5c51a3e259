<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\Core\Playback\Call;

/** A device that plays on a display, known by the secret in its address. */
#[ORM\Entity]
class Player
{
    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $revokedAt = null;

    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $calledAt = null;

    /** SHA-256 of the release that it says it plays. */
    #[ORM\Column(length: 64, nullable: true)]
    public ?string $playsSha256 = null;

    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $playsSince = null;

    #[ORM\Column(length: 300, nullable: true)]
    public ?string $trouble = null;

    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 80)]
        public readonly string $id,
        #[ORM\Column(length: 120)]
        public string $name,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false)]
        public SurveyedDisplay $display,
        #[ORM\Column(length: 64, unique: true)]
        public readonly string $secret,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        public readonly \DateTimeImmutable $boundAt,
    ) {
    }

    /** 160 random bits, so that an address cannot be guessed. */
    public static function newSecret(): string
    {
        return bin2hex(random_bytes(20));
    }

    public function address(): string
    {
        return "/play/$this->secret/";
    }

    public function call(): Call
    {
        return new Call((int) $this->boundAt->format('Uv'), $this->calledAt === null ? null : (int) $this->calledAt->format('Uv'), $this->playsSha256, $this->trouble);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $written = static fn (?\DateTimeImmutable $at): ?string => $at?->format('Y-m-d\TH:i:s\Z');

        return [
            'id' => $this->id,
            'name' => $this->name,
            'display' => $this->display->id,
            'address' => $this->revokedAt === null ? $this->address() : null,
            'bound_at' => $written($this->boundAt),
            'revoked_at' => $written($this->revokedAt),
            'called_at' => $written($this->calledAt),
            'plays_sha256' => $this->playsSha256,
            'plays_since' => $written($this->playsSince),
            'trouble' => $this->trouble,
        ];
    }
}
