<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128080000 extends AbstractMigration
{
    private const ID = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin';

    public function getDescription(): string
    {
        return 'Pictures that rows of data name by their addresses: which are wanted, and what was fetched of each.';
    }

    public function up(Schema $schema): void
    {
        $id = self::ID;
        $this->addSql("CREATE TABLE IF NOT EXISTS field_picture (
            source_id VARCHAR(80) $id NOT NULL, hash CHAR(64) NOT NULL, address VARCHAR(2000) NOT NULL, wanted_ms BIGINT NOT NULL, due_ms BIGINT DEFAULT NULL, claimed_ms BIGINT NOT NULL DEFAULT 0,
            tries INT NOT NULL DEFAULT 0, why VARCHAR(500) DEFAULT NULL, etag VARCHAR(500) DEFAULT NULL, modified VARCHAR(100) DEFAULT NULL, sha256 CHAR(64) DEFAULT NULL,
            asset_id VARCHAR(80) DEFAULT NULL, coming_id VARCHAR(80) DEFAULT NULL,
            PRIMARY KEY (source_id, hash), INDEX due (due_ms), INDEX coming (coming_id)) DEFAULT CHARACTER SET utf8mb4");
        $this->addSql('ALTER TABLE media_asset ADD COLUMN IF NOT EXISTS of_source VARCHAR(80) DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE media_asset DROP of_source');
        $this->addSql('DROP TABLE field_picture');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
