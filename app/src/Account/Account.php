<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Security\Core\User\PasswordAuthenticatedUserInterface;
use Symfony\Component\Security\Core\User\UserInterface;

/** Somebody who may sign in. */
#[ORM\Entity]
class Account implements UserInterface, PasswordAuthenticatedUserInterface
{
    #[ORM\Column]
    private string $passwordHash = '';

    /** @param non-empty-string $login */
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 80)]
        public readonly string $login,
        #[ORM\Column(length: 120)]
        public string $name,
        #[ORM\Column(length: 40)]
        public string $role = 'ROLE_DESIGNER',
    ) {
    }

    public function setPasswordHash(string $hash): void
    {
        $this->passwordHash = $hash;
    }

    public function getPassword(): string
    {
        return $this->passwordHash;
    }

    /** @return list<string> */
    public function getRoles(): array
    {
        return [$this->role];
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
