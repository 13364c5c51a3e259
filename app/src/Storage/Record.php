<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use UpperPane\App\Account\Reach;
use UpperPane\App\Account\Who;

/** Who did what, and when: noted with each act, in its transaction. */
final readonly class Record
{
    /** Revisions that somebody saves one after the other are one act, as long as no more than this lies between two of them. */
    private const ONE_SITTING_S = 1800;

    public function __construct(private Connection $connection, private Who $who, private Reach $reach, private ClockInterface $clock)
    {
    }

    /** @param array<string, scalar|null> $more */
    public function note(Did $did, About $thing, array $more = []): void
    {
        $this->connection->isTransactionActive() ?: throw new \LogicException('An act and what is noted of it are one transaction.');
        $more = array_filter($more, static fn (mixed $one): bool => $one !== null);
        $now = $this->clock->now();
        $before = $did === Did::Saved && !isset($more['note']) ? $this->sitting($thing, $now->modify(sprintf('-%d seconds', self::ONE_SITTING_S))) : null;
        if ($before !== null) {
            $this->connection->update('act', ['did_at' => $now->format('Y-m-d H:i:s'), 'more' => self::json(['first' => $before['first']] + $more)], ['id' => $before['id']]);

            return;
        }
        $this->connection->insert('act', [
            'did_at' => $now->format('Y-m-d H:i:s'),
            'who' => $this->who->login(),
            'did' => $did->value,
            'kind' => $thing->kind,
            'thing_id' => $thing->id,
            'name' => $thing->name,
            'more' => self::json($more),
        ]);
    }

    /**
     * The same with very many things at once.
     *
     * @param string $select SQL that says who did what with which things: `who`, `did`, `kind`, `thing_id`, `name`, and `more` as JSON
     * @param list<mixed> $values
     */
    public function noteSelected(string $select, array $values): void
    {
        $this->connection->executeStatement(
            "INSERT INTO act (did_at, who, did, kind, thing_id, name, more) SELECT ?, x.* FROM ($select) x",
            [$this->clock->now()->format('Y-m-d H:i:s'), ...$values],
        );
    }

    /**
     * @param ?int $before only what was noted before the act of this id
     * @return array{acts: list<array{id: int, at: string, who: ?string, did: string, says: string}>, more: bool} the last first
     */
    public function of(string $kind, string $id, int $most, ?int $before = null): array
    {
        $within = match ($kind) {
            'display', 'place', 'media' => $this->reach->condition($kind, 'thing_id'),
            'layout', 'filled', 'playlist', 'schedule', 'source', 'style', 'overlay', 'trigger', 'panel' => $this->reach->condition('design', 'thing_id'),
            default => Reach::ALL,
        };
        $rows = $this->connection->fetchAllAssociative(
            "SELECT id, did_at, who, did, more FROM act WHERE kind = ? AND thing_id = ? AND id < ? AND $within ORDER BY id DESC LIMIT " . ($most + 1),
            [$kind, $id, $before ?? PHP_INT_MAX],
        );
        $told = [];
        foreach (array_slice($rows, 0, $most) as $row) {
            assert(is_int($row['id']) && is_string($row['did_at']) && is_string($row['did']) && is_string($row['more']));
            $told[] = [
                'id' => $row['id'],
                'at' => strtr($row['did_at'], ' ', 'T') . 'Z',
                'who' => is_string($row['who']) ? $row['who'] : null,
                'did' => $row['did'],
                'says' => Did::from($row['did'])->says((array) json_decode($row['more'], true)),
            ];
        }

        return ['acts' => $told, 'more' => count($rows) > $most];
    }

    /** @return ?array{id: int, first: int} the last act with this thing, where it is a saving by the same person, and the first revision that was saved then */
    private function sitting(About $thing, \DateTimeImmutable $since): ?array
    {
        $row = $this->connection->fetchAssociative('SELECT id, did_at, who, did, more FROM act WHERE kind = ? AND thing_id = ? ORDER BY id DESC LIMIT 1', [$thing->kind, $thing->id]);
        $more = $row === false || !is_string($row['more']) ? null : json_decode($row['more'], true);
        if ($row === false || !is_int($row['id']) || $row['did'] !== Did::Saved->value || $row['who'] !== $this->who->login() || $row['did_at'] < $since->format('Y-m-d H:i:s')) {
            return null;
        }
        $first = is_array($more) && !isset($more['note']) ? $more['first'] ?? $more['revision'] ?? null : null;

        return is_int($first) ? ['id' => $row['id'], 'first' => $first] : null;
    }

    /** @param array<string, mixed> $more */
    private static function json(array $more): string
    {
        return json_encode((object) $more, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }
}
