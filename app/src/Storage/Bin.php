<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use UpperPane\App\Account\Who;
use UpperPane\App\Http\Problem;

/**
 * What is deleted lies here for 30 days, and comes back whole: the rows as they were, and who named them.
 *
 * Nothing else of the application has to know of it: what lies here is nowhere else.
 */
final readonly class Bin
{
    public const DAYS = 30;

    public function __construct(private EntityManagerInterface $entities, private Who $who, private ClockInterface $clock)
    {
    }

    /**
     * Takes rows away, in the transaction that is open.
     *
     * @param array<string, string> $rows tables, the one that the others name first, and which of their rows, with a ? for the id
     * @param array<string, string> $named columns that name it from elsewhere, by table: they forget it, and know it again when it comes back
     */
    public function put(About $thing, array $rows, array $named = []): void
    {
        $id = $thing->id;
        $this->entities->flush();
        $connection = $this->entities->getConnection();
        [$kept, $links] = [[], []];
        foreach ($rows as $table => $where) {
            $kept[$table] = $connection->fetchAllAssociative("SELECT * FROM $table WHERE $where", [$id]);
        }
        foreach ($named as $table => $column) {
            $links[$table] = ['column' => $column, 'ids' => $connection->fetchFirstColumn("SELECT id FROM $table WHERE $column = ?", [$id])];
            $connection->executeStatement("UPDATE $table SET $column = NULL WHERE $column = ?", [$id]);
        }
        $connection->insert('binned', [
            'kind' => $thing->kind,
            'thing_id' => $id,
            'name' => $thing->name,
            'kept' => json_encode(['rows' => $kept, 'links' => $links], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            'deleted_at' => $this->clock->now()->format('Y-m-d H:i:s'),
            'deleted_by' => $this->who->login(),
        ]);
        if (isset($rows['surveyed_display'])) {
            $connection->executeStatement('UPDATE surveyed_display SET current_id = NULL WHERE id = ?', [$id]);
        }
        foreach (array_reverse($rows) as $table => $where) {
            $connection->executeStatement("DELETE FROM $table WHERE $where", [$id]);
        }
        $this->entities->clear();
    }

    /** @return list<array{id: int, kind: string, thing: string, name: string, deleted_at: string, deleted_by: ?string, gone_at: string}> the last deleted first */
    public function all(): array
    {
        $told = [];
        foreach ($this->entities->getConnection()->fetchAllAssociative('SELECT id, kind, thing_id, name, deleted_at, deleted_by FROM binned ORDER BY deleted_at DESC, id DESC') as $row) {
            assert(is_int($row['id']) && is_string($row['kind']) && is_string($row['thing_id']) && is_string($row['name']) && is_string($row['deleted_at']));
            $told[] = [
                'id' => $row['id'],
                'kind' => $row['kind'],
                'thing' => $row['thing_id'],
                'name' => $row['name'],
                'deleted_at' => strtr($row['deleted_at'], ' ', 'T') . 'Z',
                'deleted_by' => is_string($row['deleted_by']) ? $row['deleted_by'] : null,
                'gone_at' => gmdate('Y-m-d\TH:i:s\Z', (int) strtotime($row['deleted_at'] . ' UTC') + self::DAYS * 86_400),
            ];
        }

        return $told;
    }

    /** Puts all of it back, in the transaction that is open, and says what it was. */
    public function back(int $id): About
    {
        $connection = $this->entities->getConnection();
        $row = $connection->fetchAssociative('SELECT kind, name, thing_id, kept FROM binned WHERE id = ? FOR UPDATE', [$id]);
        if ($row === false) {
            throw Problem::notFound('This deleted thing');
        }
        /** @var array{rows: array<string, list<array<string, mixed>>>, links: array<string, array{column: string, ids: list<mixed>}>} $kept */
        $kept = json_decode(is_string($row['kept']) ? $row['kept'] : '', true, flags: JSON_THROW_ON_ERROR);
        try {
            $current = null;
            foreach ($kept['rows'] as $table => $rows) {
                $columns = array_flip(array_filter($connection->fetchFirstColumn(
                    "SELECT column_name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ? AND extra NOT LIKE '%GENERATED%'",
                    [$table],
                ), is_string(...)));
                foreach ($rows as $one) {
                    // What stands on a display is known once its releases are there again.
                    $current ??= $table === 'surveyed_display' ? $one['current_id'] : null;
                    $connection->insert($table, array_intersect_key(['current_id' => null] + $one, $columns));
                }
            }
            if ($current !== null) {
                $connection->update('surveyed_display', ['current_id' => $current], ['id' => $row['thing_id']]);
            }
        } catch (UniqueConstraintViolationException) {
            throw new Problem(409, 'bin.taken', sprintf('"%s" cannot come back: something else has taken its place meanwhile.', is_string($row['name']) ? $row['name'] : ''));
        }
        foreach ($kept['links'] as $table => ['column' => $column, 'ids' => $ids]) {
            foreach ($ids as $one) {
                $connection->executeStatement("UPDATE $table SET $column = ? WHERE id = ? AND $column IS NULL", [$row['thing_id'], $one]);
            }
        }
        $connection->delete('binned', ['id' => $id]);
        $this->entities->clear();

        return self::about($row);
    }

    /** @param array<string, mixed> $row */
    private static function about(array $row): About
    {
        [$kind, $id, $name] = array_map(static fn (string $column): string => is_string($row[$column]) ? $row[$column] : '', ['kind', 'thing_id', 'name']);

        return new About(match ($kind) {
            'layout', 'filled', 'playlist', 'schedule', 'source', 'style', 'overlay', 'trigger', 'panel', 'media', 'display', 'place', 'face', 'division' => $kind,
            default => throw new \LogicException("Nothing of the kind $kind lies in the bin."),
        }, $id, $name);
    }

    /**
     * Media that lie here: releases that were made before still play them.
     *
     * @param list<string> $ids
     * @return array<string, array{url: string, sha256: string, bytes: int, type: string}> by media id
     */
    public function media(array $ids): array
    {
        $files = [];
        $rows = $ids === [] ? [] : $this->entities->getConnection()->fetchFirstColumn(
            "SELECT kept FROM binned WHERE kind = 'media' AND thing_id IN (?)",
            [$ids],
            [ArrayParameterType::STRING],
        );
        foreach ($rows as $text) {
            $kept = json_decode(is_string($text) ? $text : '', true);
            $asset = is_array($kept) && is_array($kept['rows'] ?? null) && is_array($kept['rows']['media_asset'] ?? null) ? $kept['rows']['media_asset'][0] ?? null : null;
            if (is_array($asset) && is_string($asset['id'] ?? null) && is_string($asset['file'] ?? null) && is_string($asset['sha256'] ?? null)) {
                $files[$asset['id']] = [
                    'url' => '/' . $asset['file'],
                    'sha256' => $asset['sha256'],
                    'bytes' => is_numeric($asset['bytes'] ?? null) ? (int) $asset['bytes'] : 0,
                    'type' => is_string($asset['type'] ?? null) ? $asset['type'] : '',
                ];
            }
        }

        return $files;
    }
}
