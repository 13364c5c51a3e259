<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261124031500 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Divisions of a canvas that a team keeps.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE kept_division (id VARCHAR(26) NOT NULL, name VARCHAR(200) NOT NULL, recipe JSON NOT NULL, saved_at DATETIME NOT NULL,
            saved_by VARCHAR(80) DEFAULT NULL, PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE kept_division');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
