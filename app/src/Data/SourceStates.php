<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Holding;

/** How sources stand, and what came of each fetch: written by who fetches, read by the desk. */
final readonly class SourceStates implements Holding
{
    /** So much longer than its time a fetch may be in hand before somebody else takes it. */
    private const LEASE_MS = 30_000;

    /** By so many fetches it is told how much one costs. */
    private const COUNTED = 20;

    public function __construct(private Connection $connection)
    {
    }

    public function of(string $source): ?SourceState
    {
        return $this->all([$source])[$source] ?? null;
    }

    /**
     * @param ?list<string> $sources ids; null for all
     * @return array<SourceState> by id
     */
    public function all(?array $sources = null): array
    {
        $states = [];
        $rows = $sources === null
            ? $this->connection->fetchAllAssociative('SELECT * FROM source_state')
            : $this->connection->fetchAllAssociative('SELECT * FROM source_state WHERE source_id IN (?)', [$sources], [ArrayParameterType::STRING]);
        foreach ($rows as $row) {
            $state = SourceState::ofRow($row);
            $states[$state->id] = $state;
        }

        return $states;
    }

    /** Something was changed at it: it may come in another format. */
    public function changed(string $source): void
    {
        $this->connection->executeStatement('UPDATE source_state SET kind = NULL, etag = NULL, modified = NULL, told_ms = NULL WHERE source_id = ?', [$source]);
    }

    /** Notes when it is to be fetched next; null for never. */
    public function due(string $source, ?int $ms): void
    {
        $this->connection->executeStatement('INSERT INTO source_state (source_id, due_ms) VALUES (?, ?) ON DUPLICATE KEY UPDATE due_ms = VALUES(due_ms)', [$source, $ms]);
    }

    /** Takes one that is due, so that nobody else fetches it at the same time; null where none is. */
    public function take(int $nowMs): ?string
    {
        foreach ($this->connection->fetchFirstColumn('SELECT source_id FROM source_state WHERE due_ms <= ? AND claimed_ms < ? ORDER BY due_ms LIMIT 8', [$nowMs, $nowMs]) as $source) {
            if (
                is_string($source) && $this->connection->executeStatement(
                    'UPDATE source_state SET claimed_ms = ? WHERE source_id = ? AND due_ms <= ? AND claimed_ms < ?',
                    [$nowMs + self::LEASE_MS, $source, $nowMs, $nowMs],
                ) === 1
            ) {
                return $source;
            }
        }

        return null;
    }

    /** Keeps one that was taken in hand for so much longer. */
    public function holds(string $source, int $untilMs): void
    {
        $this->connection->executeStatement('UPDATE source_state SET claimed_ms = ? WHERE source_id = ?', [$untilMs + self::LEASE_MS, $source]);
    }

    /**
     * Notes what came of a fetch, or of a file that was brought in.
     *
     * @param ?int $nextMs when it is fetched again, Unix ms
     * @param ?string $sha256 of what was read
     * @param ?string $kind the format in which it came
     * @param ?string $file its name, where it was brought in
     */
    public function note(
        string $source,
        Outcome $outcome,
        Fetched $fetched,
        int $atMs,
        ?int $nextMs,
        ?string $sha256 = null,
        ?int $bytes = null,
        ?string $kind = null,
        ?string $file = null,
        ?string $why = null,
    ): void {
        $why = $why === null ? null : mb_strimwidth($why, 0, 1000, '...');
        $this->connection->insert('source_fetch', [
            'source_id' => $source, 'at_ms' => $atMs, 'took_ms' => $fetched->tookMs, 'outcome' => $outcome->value, 'status' => $fetched->status,
            'came_bytes' => $fetched->came, 'why' => $why, 'sha256' => $sha256,
        ]);
        // One of which the state was never noted has a row from here on.
        $this->connection->executeStatement('INSERT IGNORE INTO source_state (source_id) VALUES (?)', [$source]);
        if ($outcome === Outcome::Read || $outcome === Outcome::Same) {
            $this->connection->executeStatement(
                'UPDATE source_state SET due_ms = ?, claimed_ms = 0, taken_ms = ?, failing_since_ms = NULL, why = NULL, sha256 = COALESCE(?, sha256), bytes = COALESCE(?, bytes),
                 kind = COALESCE(?, kind), file = COALESCE(?, file), etag = ?, modified = ? WHERE source_id = ?',
                [$nextMs, $atMs, $sha256, $bytes, $kind, $file, $this->short($fetched->etag, 500), $this->short($fetched->modified, 100), $source],
            );
        } else {
            $this->connection->executeStatement(
                'UPDATE source_state SET due_ms = ?, claimed_ms = 0, failing_since_ms = COALESCE(failing_since_ms, ?), why = ?, etag = NULL, modified = NULL WHERE source_id = ?',
                [$nextMs, $atMs, $why, $source],
            );
        }
    }

    /** What it is asked with; only who fetches opens it. */
    public function sealed(string $source): ?string
    {
        $sealed = $this->connection->fetchOne('SELECT sealed FROM source_state WHERE source_id = ?', [$source]);

        return is_string($sealed) && $sealed !== '' ? $sealed : null;
    }

    /** @param list<string> $names of what is sealed, which may be shown */
    public function seal(string $source, ?string $sealed, array $names): void
    {
        $this->connection->executeStatement(
            'INSERT INTO source_state (source_id, sealed, sealed_names) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE sealed = VALUES(sealed), sealed_names = VALUES(sealed_names)',
            [$source, $sealed, $names === [] ? null : implode("\n", $names)],
        );
    }

    /**
     * The last first.
     *
     * @return list<array{id: int, at_ms: int, took_ms: int, outcome: string, status: ?int, came_bytes: int, why: ?string, sha256: ?string}>
     */
    public function fetches(string $source, int $most): array
    {
        /** @var list<array{id: int, at_ms: int, took_ms: int, outcome: string, status: ?int, came_bytes: int, why: ?string, sha256: ?string}> */
        return $this->connection->fetchAllAssociative(
            "SELECT id, at_ms, took_ms, outcome, status, came_bytes, why, sha256 FROM source_fetch WHERE source_id = ? ORDER BY at_ms DESC, id DESC LIMIT $most",
            [$source],
        );
    }

    /**
     * When something new was read last, and what was read before that.
     *
     * @return array{array{id: int, at_ms: int}|null, array{id: int, at_ms: int}|null}
     */
    public function lastRead(string $source): array
    {
        /** @var list<array{id: int, at_ms: int}> $read */
        $read = $this->connection->fetchAllAssociative(
            'SELECT id, at_ms FROM source_fetch WHERE source_id = ? AND outcome = ? ORDER BY at_ms DESC, id DESC LIMIT 2',
            [$source, Outcome::Read->value],
        );

        return [$read[0] ?? null, $read[1] ?? null];
    }

    /**
     * Those that were read since what screens tell was made of them last.
     *
     * @return list<string>
     */
    public function untold(): array
    {
        $asked = 'SELECT source_id FROM source_state WHERE taken_ms IS NOT NULL AND (told_ms IS NULL OR told_ms <> taken_ms) ORDER BY source_id';

        return array_values(array_filter($this->connection->fetchFirstColumn($asked), is_string(...)));
    }

    /** What it tells means something else by now, though it was not fetched: a picture that rows name is there. */
    public function tellsAnew(string $source): void
    {
        $this->connection->executeStatement('UPDATE source_state SET told_ms = NULL WHERE source_id = ?', [$source]);
    }

    /** What it tells is being compiled for screens. */
    public function telling(string $source): void
    {
        $this->connection->executeStatement('UPDATE source_state SET told_ms = ? WHERE source_id = ?', [SourceState::TELLING, $source]);
    }

    /**
     * From now on screens tell what it told then; where something else was noted since, it is told anew.
     *
     * @param SourceState $then as it stood before anything was compiled
     */
    public function told(string $source, ?int $takenMs, SourceState $then): void
    {
        $this->connection->executeStatement(
            'UPDATE source_state SET told_ms = ?, told_sha256 = ? WHERE source_id = ? AND taken_ms <=> ? AND told_ms <=> ?',
            [$takenMs, $then->sha256, $source, $then->takenMs, SourceState::TELLING],
        );
    }

    /** What is typed is true from when it is saved. */
    public function typed(string $source, int $nowMs): void
    {
        $this->connection->executeStatement('UPDATE source_state SET taken_ms = ? WHERE source_id = ?', [$nowMs, $source]);
    }

    /** What a fetch of the past told, where it is still kept. */
    public function shaOf(string $source, int $fetch): ?string
    {
        $sha256 = $this->connection->fetchOne('SELECT sha256 FROM source_fetch WHERE source_id = ? AND id = ?', [$source, $fetch]);

        return is_string($sha256) ? $sha256 : null;
    }

    /** @return array<float> bytes that a fetch of each brings over the network, on the average of the last, by id */
    public function costs(): array
    {
        $costs = [];
        $rows = $this->connection->fetchAllKeyValue(
            'SELECT source_id, AVG(came_bytes) FROM (SELECT source_id, came_bytes, ROW_NUMBER() OVER (PARTITION BY source_id ORDER BY at_ms DESC, id DESC) AS place FROM source_fetch) last
             WHERE place <= ? GROUP BY source_id',
            [self::COUNTED],
        );
        foreach ($rows as $source => $bytes) {
            $costs[(string) $source] = is_numeric($bytes) ? (float) $bytes : 0.0;
        }

        return $costs;
    }

    /**
     * Forgets old fetches; of what was read last the row stays.
     *
     * @return list<string> hashes of all that is still named
     */
    public function prune(int $beforeMs, int $most): array
    {
        $this->connection->executeStatement(
            'DELETE f FROM source_fetch f JOIN (SELECT id, ROW_NUMBER() OVER (PARTITION BY source_id ORDER BY at_ms DESC, id DESC) AS place FROM source_fetch) ranked ON ranked.id = f.id
             LEFT JOIN design d ON d.id = f.source_id WHERE ranked.place > ? OR f.at_ms < ? OR (d.id IS NULL AND f.source_id NOT IN (SELECT thing_id FROM binned WHERE kind = ?))',
            [$most, $beforeMs, 'source'],
        );

        $named = 'SELECT sha256 FROM source_fetch WHERE sha256 IS NOT NULL UNION SELECT sha256 FROM source_state WHERE sha256 IS NOT NULL';

        return array_values(array_filter($this->connection->fetchFirstColumn($named), is_string(...)));
    }

    public function letsGo(About $thing): void
    {
    }

    public function goesWith(string $kind): array
    {
        return $kind === 'source' ? ['source_state' => 'source_id = ?'] : [];
    }

    public function forgets(string $kind): array
    {
        return [];
    }

    private function short(?string $text, int $most): ?string
    {
        return $text === null || strlen($text) > $most || !mb_check_encoding($text, 'UTF-8') ? null : $text;
    }
}
