<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128010000 extends AbstractMigration
{
    private const ID = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL';

    public function getDescription(): string
    {
        return 'How sources of data stand, what was fetched of each and when, and what they are asked with, sealed.';
    }

    public function up(Schema $schema): void
    {
        $id = self::ID;
        $this->addSql("CREATE TABLE IF NOT EXISTS source_state (
            source_id VARCHAR(80) $id, due_ms BIGINT DEFAULT NULL, claimed_ms BIGINT NOT NULL DEFAULT 0, taken_ms BIGINT DEFAULT NULL, failing_since_ms BIGINT DEFAULT NULL,
            why VARCHAR(1000) DEFAULT NULL, sha256 CHAR(64) DEFAULT NULL, bytes INT DEFAULT NULL, kind VARCHAR(8) DEFAULT NULL, file VARCHAR(200) DEFAULT NULL, etag VARCHAR(500) DEFAULT NULL,
            modified VARCHAR(100) DEFAULT NULL, sealed MEDIUMTEXT DEFAULT NULL, sealed_names VARCHAR(2000) DEFAULT NULL,
            PRIMARY KEY (source_id), INDEX due (due_ms)) DEFAULT CHARACTER SET utf8mb4");
        $this->addSql("CREATE TABLE IF NOT EXISTS source_fetch (
            id BIGINT AUTO_INCREMENT NOT NULL, source_id VARCHAR(80) $id, at_ms BIGINT NOT NULL, took_ms INT NOT NULL, outcome VARCHAR(16) NOT NULL,
            status SMALLINT UNSIGNED DEFAULT NULL, came_bytes INT NOT NULL, why VARCHAR(1000) DEFAULT NULL, sha256 CHAR(64) DEFAULT NULL,
            PRIMARY KEY (id), INDEX of_source (source_id, at_ms)) DEFAULT CHARACTER SET utf8mb4");
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE source_fetch');
        $this->addSql('DROP TABLE source_state');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
