<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\PasswordHasher\Hasher\PasswordHasherFactoryInterface;
use Symfony\Component\Security\Core\Exception\UnsupportedUserException;
use Symfony\Component\Security\Core\Exception\UserNotFoundException;
use Symfony\Component\Security\Core\User\UserInterface;
use Symfony\Component\Security\Core\User\UserProviderInterface;

/**
 * Who may sign in.
 *
 * @implements UserProviderInterface<Account>
 */
final readonly class Accounts implements UserProviderInterface
{
    public function __construct(private EntityManagerInterface $entities, private PasswordHasherFactoryInterface $hashers, private ClockInterface $clock)
    {
    }

    public function find(string $login): ?Account
    {
        return $login === '' ? null : $this->entities->find(Account::class, $login);
    }

    /** A name that nobody has takes as long as one that somebody has: a password is held against a hash as well. */
    public function pretend(#[\SensitiveParameter] string $password): void
    {
        $hasher = $this->hashers->getPasswordHasher(Account::class);
        $hasher->hash($password);
    }

    public function loadUserByIdentifier(string $identifier): UserInterface
    {
        $account = $this->find($identifier);

        return $account !== null && $account->mayCome($this->clock->now()) ? $account : throw new UserNotFoundException();
    }

    public function refreshUser(UserInterface $user): UserInterface
    {
        return $user instanceof Account ? $this->loadUserByIdentifier($user->getUserIdentifier()) : throw new UnsupportedUserException();
    }

    public function supportsClass(string $class): bool
    {
        return $class === Account::class;
    }
}
