<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** Accounts and their roles: made, changed and taken away. What anybody did with them is written down. */
final readonly class Staff
{
    private const LEAST_LETTERS = 8;
    private const LOGIN = '/^[a-z0-9][a-z0-9.-]{0,79}$/D';
    /** A guest stays no longer than that. */
    public const GUEST_DAYS = 366;

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private UserPasswordHasherInterface $hasher,
        private Who $who,
        private ClockInterface $clock,
        private LoggerInterface $logger,
    ) {
    }

    public function find(string $login): ?Account
    {
        return $login === '' ? null : $this->entities->find(Account::class, $login);
    }

    /** @return list<array<string, mixed>> by name */
    public function all(): array
    {
        return array_map($this->told(...), $this->entities->getRepository(Account::class)->findBy([], ['name' => 'ASC', 'login' => 'ASC']));
    }

    /** @return array<string, mixed> */
    public function told(Account $account): array
    {
        $rows = $this->connection->fetchAllAssociative(
            'SELECT g.role, g.place_id AS place, p.name AS place_name FROM role_grant g LEFT JOIN place p ON p.id = g.place_id WHERE g.login = ? ORDER BY g.id',
            [$account->login],
        );
        $seen = $this->connection->fetchOne('SELECT MAX(seen_at) FROM signed_in WHERE login = ?', [$account->login]);

        return [
            'login' => $account->login,
            'name' => $account->name,
            'roles' => $rows,
            'ends_at' => $account->endsAt?->format('Y-m-d\TH:i:s\Z'),
            'seen_at' => is_string($seen) ? strtr($seen, ' ', 'T') . 'Z' : null,
        ];
    }

    /**
     * @param list<array{Role, ?Node}> $roles
     * @throws Problem where the login is taken
     */
    public function make(Node $login, string $name, Node $password, array $roles): Account
    {
        $text = $login->text(1, 80);
        if ($text === '' || preg_match(self::LOGIN, $text) !== 1) {
            throw $login->refused(Reason::ValueUnknown, 'is no login; small letters, figures, dots and dashes are right.');
        }
        $this->find($text) === null ?: throw new Problem(409, 'account.exists', sprintf('Somebody signs in as "%s" already.', $text), '/login');
        $account = new Account($text, $name);
        $this->secure($account, $password);
        $this->grant($account, $roles);
        $this->entities->persist($account);
        $this->entities->flush();
        $this->note('made the account', $account);

        return $account;
    }

    /**
     * @param int $days for how long, of 24 hours each
     * @return array{Account, string} and the token of the link
     */
    public function invite(string $name, Role $role, Node $place, int $days): array
    {
        $token = bin2hex(random_bytes(20));
        $account = new Account('guest-' . bin2hex(random_bytes(5)), $name);
        $account->endsAt = $this->clock->now()->modify("+$days days");
        $account->invitation = self::hash($token);
        $this->grant($account, [[$role, $place]]);
        $this->entities->persist($account);
        $this->entities->flush();
        $this->note('invited', $account);

        return [$account, $token];
    }

    /** Whoever comes with a link; null where it is over. */
    public function invited(#[\SensitiveParameter] string $token): ?Account
    {
        $account = $this->entities->getRepository(Account::class)->findOneBy(['invitation' => self::hash($token)]);

        return $account !== null && $account->mayCome($this->clock->now()) ? $account : null;
    }

    /** @param ?list<array{Role, ?Node}> $roles */
    public function change(Account $account, ?string $name, ?Node $password, ?array $roles): void
    {
        $this->entities->wrapInTransaction(function () use ($account, $name, $password, $roles): void {
            $account->name = $name ?? $account->name;
            $password === null ?: $this->secure($account, $password);
            if ($roles !== null) {
                $isLess = !in_array(Role::Administrator, array_column(array_filter($roles, static fn (array $one): bool => $one[1] === null), 0), true);
                $isLess ? $this->another($account) : null;
                $this->connection->executeStatement('DELETE FROM role_grant WHERE login = ?', [$account->login]);
                $this->grant($account, $roles);
            }
        });
        $this->note('changed the account', $account);
    }

    public function changePassword(Account $account, #[\SensitiveParameter] string $old, Node $new): void
    {
        if (!$this->hasher->isPasswordValid($account, $old)) {
            throw new Problem(422, 'password.wrong', 'The old password is another one.', '/old');
        }
        $this->secure($account, $new);
        $this->entities->flush();
        $this->note('changed the password of', $account);
    }

    public function remove(Account $account): void
    {
        $this->another($account);
        $this->connection->executeStatement('DELETE FROM role_grant WHERE login = ?', [$account->login]);
        $this->connection->executeStatement('DELETE FROM signed_in WHERE login = ?', [$account->login]);
        $this->entities->remove($account);
        $this->entities->flush();
        $this->note('took away the account', $account);
    }

    /** Of a place that is there no more nobody is anything. */
    public function forget(string $place): void
    {
        $this->connection->executeStatement('DELETE FROM role_grant WHERE place_id = ?', [$place]);
    }

    /** Somebody else administers everything; else nobody could any more. */
    private function another(Account $account): void
    {
        $left = $this->connection->fetchOne(
            'SELECT COUNT(*) FROM role_grant g JOIN account a ON a.login = g.login WHERE g.role = ? AND g.place_id IS NULL AND g.login <> ?',
            [Role::Administrator->value, $account->login],
        );
        $isOne = $this->connection->fetchOne('SELECT COUNT(*) FROM role_grant WHERE role = ? AND place_id IS NULL AND login = ?', [Role::Administrator->value, $account->login]);
        if ($isOne !== 0 && $left === 0) {
            throw new Problem(409, 'account.last', sprintf('"%s" is the last who administers everything. Give somebody else that role first.', $account->name));
        }
    }

    /** @param list<array{Role, ?Node}> $roles */
    private function grant(Account $account, array $roles): void
    {
        $grants = [];
        foreach ($roles as [$role, $place]) {
            $id = $place?->id();
            if ($place !== null && $this->connection->fetchOne('SELECT 1 FROM place WHERE id = ?', [$id]) === false) {
                throw $place->refused(Reason::RefUnknown, sprintf('is "%s", no place of the estate.', $id));
            }
            $grants[] = new Grant($account->login, $role, $id);
        }
        array_map($this->entities->persist(...), $grants);
    }

    private function secure(Account $account, Node $password): void
    {
        $text = $password->text(0, 4096);
        if (mb_strlen($text) < self::LEAST_LETTERS) {
            throw $password->refused(Reason::ValueRange, sprintf('has %d letters; %d at the least are right.', mb_strlen($text), self::LEAST_LETTERS));
        }
        $account->setPasswordHash($this->hasher->hashPassword($account, $text));
    }

    private function note(string $what, Account $account): void
    {
        $this->logger->warning('{who} {what} {login}.', ['who' => $this->who->login() ?? 'the console', 'what' => $what, 'login' => $account->login]);
    }

    private static function hash(#[\SensitiveParameter] string $token): string
    {
        return hash('sha256', $token);
    }
}
