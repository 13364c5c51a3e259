<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/** A new player that waits to be bound: the short code on its screen, and the long claim that only it knows. */
#[ORM\Entity]
class Pairing
{
    public const MINUTES = 15;

    #[ORM\ManyToOne]
    public ?Player $player = null;

    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 64)]
        public readonly string $claim,
        #[ORM\Column(length: 8, unique: true)]
        public readonly string $code,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        public readonly \DateTimeImmutable $endsAt,
    ) {
    }

    /** Six letters and figures, without those that look alike; 29 bits, good for a quarter of an hour. */
    public static function newCode(): string
    {
        $alphabet = 'ABCDEFGHJKLMNPRTUVWXY346789';
        $code = '';
        for ($i = 0; $i < 6; $i++) {
            $code .= $alphabet[random_int(0, strlen($alphabet) - 1)];
        }

        return $code;
    }
}
