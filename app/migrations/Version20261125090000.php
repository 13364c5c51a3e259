<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A release knows what it was made from, and until when it is planned.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE handed_release ADD parts JSON DEFAULT NULL, ADD planned_until DATETIME DEFAULT NULL, ADD planned_then VARCHAR(255) DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE handed_release DROP parts, DROP planned_until, DROP planned_then');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
