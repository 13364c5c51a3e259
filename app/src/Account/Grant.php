<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Doctrine\ORM\Mapping as ORM;

/** A role that somebody has at a place; without a place everywhere. */
#[ORM\Entity]
#[ORM\Table(name: 'role_grant')]
class Grant
{
    #[ORM\Id]
    #[ORM\GeneratedValue]
    #[ORM\Column]
    public int $id;

    public function __construct(
        #[ORM\Column(length: 80)]
        public readonly string $login,
        #[ORM\Column(length: 16, enumType: Role::class)]
        public readonly Role $role,
        #[ORM\Column(length: 80, nullable: true)]
        public readonly ?string $placeId = null,
    ) {
    }
}
