<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/** A browser in which somebody is signed in; without it a session is nobody's. */
#[ORM\Entity]
#[ORM\Index(columns: ['login'])]
class SignedIn
{
    #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
    public \DateTimeImmutable $seenAt;

    /** @param string $agent what the browser calls itself */
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 26)]
        public readonly string $id,
        #[ORM\Column(length: 80)]
        public readonly string $login,
        #[ORM\Column(length: 200)]
        public readonly string $agent,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        public readonly \DateTimeImmutable $beganAt,
    ) {
        $this->seenAt = $beganAt;
    }
}
