<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128170000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What is filled in from the rows of a source, and with which row.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE IF NOT EXISTS rows_filling (id VARCHAR(26) NOT NULL, template_id VARCHAR(80) NOT NULL, told LONGTEXT NOT NULL CHECK (JSON_VALID(told)), done_at DATETIME NOT NULL,
             done_by VARCHAR(80) DEFAULT NULL, INDEX IDX_rows_filling_template (template_id), PRIMARY KEY(id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_nopad_bin`',
        );
        $this->addSql(
            'CREATE TABLE IF NOT EXISTS rows_filled (filling_id VARCHAR(26) NOT NULL, row_key VARCHAR(160) NOT NULL, design_id VARCHAR(80) NOT NULL,
             INDEX IDX_rows_filled_design (design_id), PRIMARY KEY(filling_id, row_key)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_nopad_bin`',
        );
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE rows_filling');
        $this->addSql('DROP TABLE rows_filled');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
