<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;
use UpperPane\App\Layout\References;

final class Version20261127100000 extends AbstractMigration
{
    private const BATCH = 500;

    public function getDescription(): string
    {
        return 'What each revision of a design names, as rows.';
    }

    public function up(Schema $schema): void
    {
        $id = 'VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL';
        $this->addSql("CREATE TABLE IF NOT EXISTS reference (design_id $id, revision INT NOT NULL, kind VARCHAR(8) NOT NULL, thing_id $id,
            INDEX named (kind, thing_id), PRIMARY KEY (design_id, revision, kind, thing_id)) DEFAULT CHARACTER SET utf8mb4");
        $rows = [];
        foreach ($this->connection->iterateAssociative('SELECT design_id, number, document FROM design_revision WHERE number IS NOT NULL') as $row) {
            $document = is_string($row['document']) ? json_decode($row['document'], true) : null;
            if (is_array($document) && is_string($row['design_id']) && is_int($row['number'])) {
                /** @var array<string, mixed> $document */
                array_push($rows, ...References::rows($row['design_id'], $row['number'], $document));
            }
        }
        foreach (array_chunk($rows, self::BATCH) as $chunk) {
            $this->addSql(
                'INSERT IGNORE INTO reference (design_id, revision, kind, thing_id) VALUES ' . implode(', ', array_fill(0, count($chunk), '(?, ?, ?, ?)')),
                array_merge(...array_map(array_values(...), $chunk)),
            );
        }
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE reference');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
