<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261127110000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Who did what, and when.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("CREATE TABLE IF NOT EXISTS act (id BIGINT AUTO_INCREMENT NOT NULL, did_at DATETIME NOT NULL, who VARCHAR(80) DEFAULT NULL, did VARCHAR(20) NOT NULL, kind VARCHAR(16) NOT NULL,
            thing_id VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL, name VARCHAR(255) NOT NULL, more LONGTEXT NOT NULL,
            INDEX acts_with (kind, thing_id, id), INDEX acts_at (did_at), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4");
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE act');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
