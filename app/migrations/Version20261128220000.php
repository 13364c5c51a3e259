<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128220000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What was put up in a hurry, and on which displays it stands until when.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE IF NOT EXISTS in_force (id VARCHAR(26) NOT NULL COLLATE utf8mb4_nopad_bin, kind VARCHAR(16) NOT NULL, name VARCHAR(255) NOT NULL, reason VARCHAR(500) DEFAULT NULL,
             document LONGTEXT NOT NULL, place VARCHAR(1000) NOT NULL, begun_ms BIGINT NOT NULL, until_ms BIGINT NOT NULL, begun_by VARCHAR(80) DEFAULT NULL, ended_ms BIGINT DEFAULT NULL,
             ended_by VARCHAR(80) DEFAULT NULL, INDEX until_ms (until_ms), PRIMARY KEY(id)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE IF NOT EXISTS in_force_on (in_force_id VARCHAR(26) NOT NULL COLLATE utf8mb4_nopad_bin, display_id VARCHAR(80) NOT NULL COLLATE utf8mb4_nopad_bin, until_ms BIGINT NOT NULL,
             plane LONGTEXT NOT NULL, INDEX display_id (display_id, until_ms), PRIMARY KEY(in_force_id, display_id),
             CONSTRAINT in_force_on_in_force FOREIGN KEY (in_force_id) REFERENCES in_force (id) ON DELETE CASCADE) DEFAULT CHARACTER SET utf8mb4',
        );
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE IF EXISTS in_force_on');
        $this->addSql('DROP TABLE IF EXISTS in_force');
    }
}
