<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Doctrine\DBAL\Connection;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Contracts\Service\ResetInterface;

/** What whoever asks may do, and where. Where nobody asks, as in a job, all may be done. */
final class Rights implements ResetInterface
{
    /** Of a request: the right that is made use of (Right). */
    public const NEEDED = '_needed_right';

    /** @var array<string, list<array{Role, ?string}>> by login */
    private array $granted = [];

    /** @var array<string, ?list<string>> by login and right */
    private array $places = [];

    public function __construct(private readonly Connection $connection, private readonly Security $security, private readonly RequestStack $requests)
    {
    }

    public function reset(): void
    {
        $this->granted = $this->places = [];
    }

    public function has(Right $right): bool
    {
        return $this->places($right) !== [];
    }

    /**
     * Where whoever asks has a right.
     *
     * @return ?list<string> ids of places, with all that lie in them; null for everywhere
     */
    public function places(Right $right): ?array
    {
        $login = $this->login();
        if ($login === null) {
            return null;
        }

        return array_key_exists("$login $right->value", $this->places) ? $this->places["$login $right->value"] : $this->places["$login $right->value"] = $this->within($login, $right);
    }

    /** The right that is made use of now: of what one may only look at, nothing is changed. */
    public function needed(): Right
    {
        $needed = $this->requests->getMainRequest()?->attributes->get(self::NEEDED);

        return $needed instanceof Right ? $needed : Right::Look;
    }

    /** From here on another one is made use of, because of what is asked for. */
    public function need(Right $right): void
    {
        $this->requests->getMainRequest()?->attributes->set(self::NEEDED, $right);
    }

    public function login(): ?string
    {
        return $this->security->getUser()?->getUserIdentifier();
    }

    /** @return array<string, true|list<string>> by the name of each right that whoever asks has: where; true for everywhere */
    public function told(): array
    {
        $told = [];
        foreach (Right::cases() as $right) {
            $places = $this->places($right);
            $told += $places === [] ? [] : [$right->value => $places ?? true];
        }

        return $told;
    }

    /** @return list<array{Role, ?string}> */
    private function granted(string $login): array
    {
        if (!isset($this->granted[$login])) {
            $this->granted[$login] = [];
            foreach ($this->connection->fetchAllNumeric('SELECT role, place_id FROM role_grant WHERE login = ?', [$login]) as [$role, $place]) {
                $known = is_string($role) ? Role::tryFrom($role) : null;
                $known === null ?: $this->granted[$login][] = [$known, is_string($place) ? $place : null];
            }
        }

        return $this->granted[$login];
    }

    /** @return ?list<string> */
    private function within(string $login, Right $right): ?array
    {
        $at = [];
        foreach ($this->granted($login) as [$role, $place]) {
            if (!in_array($right, $role->rights(), true)) {
                continue;
            }
            if ($place === null) {
                return null;
            }
            $at[] = $place;
        }
        if ($at === []) {
            return [];
        }
        $parents = $this->connection->fetchAllKeyValue('SELECT id, parent_id FROM place');
        $within = [];
        foreach (array_keys($parents) as $id) {
            for ($place = (string) $id;; $place = $parents[$place]) {
                if (in_array($place, $at, true)) {
                    $within[] = (string) $id;
                    break;
                }
                if (!is_string($parents[$place] ?? null)) {
                    break;
                }
            }
        }

        return $within;
    }
}
