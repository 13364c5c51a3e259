<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;
use UpperPane\App\Layout\References;

final class Version20261127130000 extends AbstractMigration
{
    private const BATCH = 500;

    public function getDescription(): string
    {
        return 'What viewers read in each revision of a design, as rows.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE IF NOT EXISTS shown_words (id CHAR(33) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
            words MEDIUMTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL, PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
        $this->addSql('CREATE INDEX IF NOT EXISTS made_of ON handed_release (made_of)');
        [$words, $rows] = [[], []];
        foreach ($this->connection->iterateAssociative('SELECT design_id, number, document FROM design_revision WHERE number IS NOT NULL') as $row) {
            $document = is_string($row['document']) ? json_decode($row['document'], true) : null;
            if (is_array($document) && is_string($row['design_id']) && is_int($row['number'])) {
                /** @var array<string, mixed> $document */
                foreach (References::words($document) as $id => $text) {
                    $words[$id] = [$id, $text];
                    $rows[] = [$row['design_id'], $row['number'], References::WORDS, $id];
                }
            }
        }
        $this->filled('shown_words (id, words)', array_values($words));
        $this->filled('reference (design_id, revision, kind, thing_id)', $rows);
    }

    /** @param list<non-empty-list<int|string>> $rows */
    private function filled(string $table, array $rows): void
    {
        foreach (array_chunk($rows, self::BATCH) as $chunk) {
            $places = '(' . implode(', ', array_fill(0, count($chunk[0]), '?')) . ')';
            $this->addSql("INSERT IGNORE INTO $table VALUES " . implode(', ', array_fill(0, count($chunk), $places)), array_merge(...$chunk));
        }
    }

    public function down(Schema $schema): void
    {
        $this->addSql("DELETE FROM reference WHERE kind = 'words'");
        $this->addSql('DROP TABLE shown_words');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
