<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Security\Core\User\PasswordAuthenticatedUserInterface;
use Symfony\Component\Security\Core\User\UserInterface;

/** Somebody who may sign in. */
#[ORM\Entity]
class Account implements UserInterface, PasswordAuthenticatedUserInterface
{
    #[ORM\Column]
    private string $passwordHash = '';

    /** When a guest goes; null for whoever stays. */
    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $endsAt = null;

    /** SHA-256 of what the link of a guest says. */
    #[ORM\Column(length: 64, nullable: true)]
    public ?string $invitation = null;

    /** @param non-empty-string $login */
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 80)]
        public readonly string $login,
        #[ORM\Column(length: 120)]
        public string $name,
    ) {
    }

    public function mayCome(\DateTimeImmutable $now): bool
    {
        return $this->endsAt === null || $now < $this->endsAt;
    }

    public function setPasswordHash(string $hash): void
    {
        $this->passwordHash = $hash;
    }

    public function getPassword(): string
    {
        return $this->passwordHash;
    }

    /** @return list<string> that he has an account; what he may do, and where, is granted (Grant) */
    public function getRoles(): array
    {
        return ['ROLE_USER'];
    }

    public function eraseCredentials(): void
    {
    }

    /** @return non-empty-string */
    public function getUserIdentifier(): string
    {
        return $this->login;
    }
}
