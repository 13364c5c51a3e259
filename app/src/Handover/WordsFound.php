<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use UpperPane\App\Account\Reach;
use UpperPane\App\Layout\References;

/** Which designs say something: as they are saved by now, and as they stand on displays. */
final readonly class WordsFound
{
    /** So many texts are looked at, and so many designs told. */
    private const MOST = 200;
    /** So many displays are named. */
    private const SOME = 3;

    public function __construct(private Connection $connection, private Reach $reach)
    {
    }

    /**
     * @param list<string> $words parts of words, all of which one text has, in any order; capitals and accents make no difference
     * @return list<array{id: string, kind: string, name: string, says: string, saved: bool, displays: int, some: list<string>}> by name: a text that has
     *         them, whether the design says it as it is saved, on how many displays it stands that way, and the first of these
     */
    public function of(array $words): array
    {
        $like = array_map(static fn (string $word): string => '%' . addcslashes($word, '\\%_') . '%', $words);
        $texts = $this->connection->fetchAllKeyValue(
            'SELECT w.id, w.words FROM shown_words w WHERE ' . implode(' AND ', array_fill(0, count($like), 'w.words LIKE ?')) . ' ORDER BY CHAR_LENGTH(w.words), w.id LIMIT ' . self::MOST,
            $like,
        );
        if ($texts === []) {
            return [];
        }
        $found = [];
        // Of several texts of one design the shortest is told.
        $said = "SELECT r.design_id, r.revision, SUBSTR(MIN(CONCAT(LPAD(CHAR_LENGTH(w.words), 8, '0'), w.id)), 9) AS words FROM reference r JOIN shown_words w ON w.id = r.thing_id
            WHERE r.kind = ? AND r.thing_id IN (?) GROUP BY r.design_id, r.revision";
        $rows = $this->connection->fetchAllAssociative(
            "WITH said AS ($said),
                standing AS (SELECT DISTINCT said.design_id, said.words, s.id, s.name, s.position FROM said
                    JOIN release_part p ON p.design_id = said.design_id AND p.revision = said.revision
                    JOIN handed_release h ON h.made_of = p.made_of JOIN surveyed_display s ON s.current_id = h.id WHERE {$this->reach->condition('display', 's.id')}),
                ranked AS (SELECT standing.*, ROW_NUMBER() OVER (PARTITION BY design_id ORDER BY position, id) AS place, COUNT(*) OVER (PARTITION BY design_id) AS displays FROM standing)
             SELECT d.id, d.kind, d.name, said.words, 1 AS saved, 0 AS displays, NULL AS display, 0 AS place FROM said JOIN design d ON d.id = said.design_id AND d.revision = said.revision
             WHERE {$this->reach->condition('design', 'd.id')}
             UNION ALL
             SELECT d.id, d.kind, d.name, ranked.words, 0, ranked.displays, ranked.name, ranked.place FROM ranked JOIN design d ON d.id = ranked.design_id
             WHERE ranked.place <= ? AND {$this->reach->condition('design', 'd.id')} ORDER BY name, id, place",
            [References::WORDS, array_map(strval(...), array_keys($texts)), self::SOME],
            [1 => ArrayParameterType::STRING],
        );
        foreach ($rows as $row) {
            /** @var array{id: string, kind: string, name: string, words: string, saved: int, displays: int, display: ?string} $row */
            $text = $texts[$row['words']] ?? '';
            $one = $found[$row['id']] ?? ['id' => $row['id'], 'kind' => $row['kind'], 'name' => $row['name'], 'says' => is_string($text) ? $text : '', 'saved' => false, 'displays' => 0, 'some' => []];
            $one['saved'] = $one['saved'] || $row['saved'] === 1;
            $one['displays'] = max($one['displays'], $row['displays']);
            $one['some'] = $row['display'] === null ? $one['some'] : [...$one['some'], $row['display']];
            $found[$row['id']] = $one;
        }

        return array_slice(array_values($found), 0, self::MOST);
    }
}
