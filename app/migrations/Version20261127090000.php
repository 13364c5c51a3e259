<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;
use UpperPane\Core\Handover\Documents;

/**
 * Ids, logins and secrets compare bytewise.
 *
 * First everything that names a row is given that row's own id: columns, stored documents, revisions and releases. Then the columns change.
 * Each statement can be run again, so that it can be begun anew after it was killed at any of them.
 */
final class Version20261127090000 extends AbstractMigration
{
    /** What names a row of which table. */
    private const NAMES = [
        'place' => [['place', 'parent_id'], ['surveyed_display', 'place_id'], ['design', 'place_id']],
        'surveyed_display' => [
            ['handed_release', 'display_id'], ['player', 'display_id'], ['design', 'display_id'], ['survey_revision', 'display_id'],
        ],
        'design' => [['design_revision', 'design_id'], ['handed_release', 'source_id']],
        'media_asset' => [['handed_release', 'source_id']],
        'player' => [['pairing', 'player_id'], ['player_report', 'player_id']],
    ];

    /** Columns that hold ids, logins or secrets: whether they may be null. */
    private const COLUMNS = [
        'account' => ['login' => [80, false]],
        'place' => ['id' => [80, false], 'parent_id' => [80, true]],
        'surveyed_display' => ['id' => [80, false], 'place_id' => [80, false]],
        'survey_revision' => ['display_id' => [80, false]],
        'design' => ['id' => [80, false], 'display_id' => [80, true], 'place_id' => [80, true]],
        'design_revision' => ['design_id' => [80, false]],
        'handed_release' => ['display_id' => [80, false], 'source_id' => [80, false], 'handing_id' => [26, true]],
        'handing' => ['id' => [26, false]],
        'media_asset' => ['id' => [80, false]],
        'player' => ['id' => [80, false], 'display_id' => [80, false], 'secret' => [64, false]],
        'player_report' => ['player_id' => [80, false]],
        'pairing' => ['claim' => [64, false], 'code' => [8, false], 'player_id' => [80, true]],
        'kept_division' => ['id' => [26, false]],
        'brought_face' => ['id' => [26, false]],
    ];

    /** Foreign keys that have to go while the columns change. */
    private const KEYS = [
        ['handed_release', 'FK_2558933A51A2DF33', 'display_id', 'surveyed_display'],
        ['pairing', 'FK_8816ECFC99E6F5DF', 'player_id', 'player'],
        ['place', 'FK_741D53CD727ACA70', 'parent_id', 'place'],
        ['player', 'FK_98197A6551A2DF33', 'display_id', 'surveyed_display'],
        ['surveyed_display', 'FK_20BAD86DDA6A219', 'place_id', 'place'],
    ];

    public function getDescription(): string
    {
        return 'Ids, logins and secrets compare bytewise.';
    }

    public function up(Schema $schema): void
    {
        foreach (self::NAMES as $table => $children) {
            foreach ($children as [$child, $column]) {
                // Once both compare bytewise, a name that is not the row's own joins nothing.
                $this->addSql("UPDATE $child c JOIN $table p ON p.id = c.$column COLLATE utf8mb4_unicode_ci SET c.$column = p.id WHERE BINARY c.$column <> BINARY p.id");
            }
        }
        $this->documents();
        // What is made of an id must not mind in which way that compares.
        $this->addSql('ALTER TABLE design DROP INDEX IF EXISTS one_schedule, DROP COLUMN IF EXISTS rules_on');
        $this->addSql('ALTER TABLE surveyed_display DROP COLUMN IF EXISTS name');
        foreach (self::KEYS as [$table, $key]) {
            $this->addSql("ALTER TABLE $table DROP FOREIGN KEY IF EXISTS $key");
        }
        foreach (self::COLUMNS as $table => $columns) {
            $changes = [];
            foreach ($columns as $column => [$length, $isNullable]) {
                $changes[] = "MODIFY $column VARCHAR($length) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin " . ($isNullable ? 'DEFAULT NULL' : 'NOT NULL');
            }
            $this->addSql("ALTER TABLE $table " . implode(', ', $changes));
        }
        foreach (self::KEYS as [$table, $key, $column, $parent]) {
            $this->addSql("ALTER TABLE $table ADD CONSTRAINT $key FOREIGN KEY IF NOT EXISTS ($column) REFERENCES $parent (id)");
        }
        $this->addSql("ALTER TABLE surveyed_display ADD IF NOT EXISTS name VARCHAR(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci
            AS (COALESCE(JSON_VALUE(document, '$.name'), '')) STORED,
            ADD INDEX IF NOT EXISTS in_lists (position, id, name, place_id, alike, revision, shape, current_id)");
        $this->addSql("ALTER TABLE design ADD IF NOT EXISTS rules_on VARCHAR(170) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin
            AS (IF(kind = 'schedule', COALESCE(CONCAT('display ', display_id), CONCAT('place ', place_id)), NULL)) STORED, ADD UNIQUE INDEX IF NOT EXISTS one_schedule (rules_on)");
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('What compares bytewise may hold rows by now that did not go together before.');
    }

    public function isTransactional(): bool
    {
        return false;
    }

    /** The id of a document is that of its row, and what it names is called as it is called. */
    private function documents(): void
    {
        $own = [['design', 'id', 'id'], ['design_revision', 'design_id', 'id'], ['surveyed_display', 'id', 'id'], ['survey_revision', 'display_id', 'id'], ['handed_release', 'source_id', 'id']];
        foreach ($own as [$table, $column, $key]) {
            $names = $table === 'design_revision' || $table === 'handed_release' ? 'design' : ($table === 'survey_revision' ? 'surveyed_display' : $table);
            foreach ($this->connection->fetchAllAssociative("SELECT t.$key AS row_key, p.id AS own, t.document FROM $table t JOIN $names p ON p.id = t.$column COLLATE utf8mb4_unicode_ci") as $row) {
                $text = is_string($row['document']) ? $row['document'] : '';
                $document = json_decode($text, true);
                if (!is_array($document) || !is_string($row['own'])) {
                    continue;
                }
                $renamed = $this->renamed($text, $document);
                if (is_string($document['id'] ?? null) && $document['id'] !== $row['own'] && strcasecmp($document['id'], $row['own']) === 0) {
                    $renamed = (string) preg_replace('/^(\s*\{(?:[^{}\[\]]*,)?\s*"id":\s*)"[^"]*"/', '$1' . json_encode($row['own']), $renamed, 1);
                }
                if ($renamed !== $text) {
                    $this->addSql("UPDATE $table SET document = ? WHERE $key = ?", [$renamed, $row['row_key']]);
                }
            }
        }
        foreach ($this->connection->fetchAllKeyValue('SELECT id, parts FROM handed_release WHERE parts IS NOT NULL') as $id => $text) {
            $parts = is_string($text) ? json_decode($text, true) : null;
            $renamed = array_map(fn (mixed $part): mixed => is_array($part) && is_string($part['id'] ?? null) ? ['id' => $this->own('design', $part['id'])] + $part : $part, is_array($parts) ? $parts : []);
            if ($renamed !== $parts && is_array($parts)) {
                $this->addSql('UPDATE handed_release SET parts = ? WHERE id = ?', [json_encode($renamed, JSON_THROW_ON_ERROR), $id]);
            }
        }
    }

    /**
     * @param array<mixed> $document
     * @return string the text, in which what it names is called as it is called
     */
    private function renamed(string $text, array $document): string
    {
        $named = Documents::named($document);
        foreach (['designs' => ['design', 'ref|layout|playlist'], 'media' => ['media_asset', 'media|id']] as $kind => [$table, $keys]) {
            foreach ($named[$kind] as $id) {
                $own = $this->own($table, $id);
                if ($own !== $id) {
                    $text = (string) preg_replace('/("(?:' . $keys . ')":\s*)' . preg_quote((string) json_encode($id), '/') . '/', '$1' . json_encode($own), $text);
                }
            }
        }

        return $text;
    }

    private function own(string $table, string $id): string
    {
        $found = $this->connection->fetchAllAssociative("SELECT id FROM $table WHERE id = ? COLLATE utf8mb4_unicode_ci ORDER BY BINARY id = BINARY ? DESC LIMIT 1", [$id, $id]);

        return is_string($found[0]['id'] ?? null) ? $found[0]['id'] : $id;
    }
}
