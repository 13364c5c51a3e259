<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128040000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What of each source of data the screens tell by now.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE source_state ADD COLUMN IF NOT EXISTS told_ms BIGINT DEFAULT NULL, ADD COLUMN IF NOT EXISTS told_sha256 CHAR(64) DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE source_state DROP told_ms, DROP told_sha256');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
