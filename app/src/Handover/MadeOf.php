<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;

/** Which revisions of which designs releases were made of, as rows: thousands of releases were made of the same. */
final readonly class MadeOf
{
    public function __construct(private Connection $connection)
    {
    }

    /** @param array<int> $parts revisions by the ids of their designs */
    public static function key(array $parts): string
    {
        ksort($parts, SORT_STRING);

        // A name, no secret.
        return hash('xxh128', json_encode((object) $parts, JSON_THROW_ON_ERROR));
    }

    /** @param array<int> $parts revisions by the ids of their designs */
    public function keep(array $parts): void
    {
        $key = self::key($parts);
        foreach ($parts as $design => $revision) {
            $this->connection->executeStatement('INSERT IGNORE INTO release_part (made_of, design_id, revision) VALUES (?, ?, ?)', [$key, (string) $design, $revision]);
        }
    }

    /** @return array<int> revisions by the ids of their designs */
    public function parts(string $key): array
    {
        return array_filter($this->connection->fetchAllKeyValue('SELECT design_id, revision FROM release_part WHERE made_of = ? ORDER BY design_id', [$key]), is_int(...));
    }

    /**
     * @param list<string> $keys
     * @return array<string, non-empty-array<true>> by key: which designs, by id
     */
    public function designs(array $keys): array
    {
        return $this->named('SELECT made_of, design_id FROM release_part WHERE made_of IN (?)', $keys);
    }

    /**
     * @param list<string> $keys
     * @return array<string, non-empty-array<true>> by key: which sources of data are told by any of these, by id
     */
    public function sources(array $keys): array
    {
        return $this->named("SELECT p.made_of, d.id FROM release_part p JOIN reference f ON f.design_id = p.design_id AND f.revision = p.revision AND f.kind = 'design'
            JOIN design d ON d.id = f.thing_id AND d.kind = 'source' WHERE p.made_of IN (?)", $keys);
    }

    /**
     * @param list<string> $keys
     * @return array<string, non-empty-array<true>>
     */
    private function named(string $asked, array $keys): array
    {
        $named = [];
        foreach (array_chunk($keys, 1000) as $chunk) {
            foreach ($this->connection->fetchAllNumeric($asked, [$chunk], [ArrayParameterType::STRING]) as [$key, $thing]) {
                if (is_string($key) && is_string($thing)) {
                    $named[$key][$thing] = true;
                }
            }
        }

        return $named;
    }

    /**
     * @param ?list<string> $keys null for all that stands on displays
     * @return array<string, non-empty-array<true>> those of them in which something says something else by now; which designs, by id
     */
    public function changed(?array $keys = null): array
    {
        if ($keys === []) {
            return [];
        }
        $standing = $keys === null
            ? 'SELECT DISTINCT r.made_of FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id WHERE r.made_of IS NOT NULL'
            : 'SELECT DISTINCT made_of FROM release_part WHERE made_of IN (?)';

        $changed = [];
        $rows = $this->connection->fetchAllNumeric(
            "WITH standing AS ($standing),
                newer AS (SELECT DISTINCT p.design_id, p.revision FROM standing JOIN release_part p ON p.made_of = standing.made_of JOIN design d ON d.id = p.design_id AND d.revision > p.revision),
                changed AS (SELECT n.design_id, n.revision FROM newer n JOIN design d ON d.id = n.design_id
                    LEFT JOIN design_revision v ON v.design_id = n.design_id AND v.number = n.revision WHERE NOT COALESCE(JSON_EQUALS(v.document, d.document), 0))
             SELECT p.made_of, p.design_id FROM changed c JOIN release_part p ON p.design_id = c.design_id AND p.revision = c.revision",
            $keys === null ? [] : [$keys],
            $keys === null ? [] : [ArrayParameterType::STRING],
        );
        foreach ($rows as [$key, $design]) {
            if (is_string($key) && is_string($design)) {
                $changed[$key][$design] = true;
            }
        }

        return $changed;
    }
}
