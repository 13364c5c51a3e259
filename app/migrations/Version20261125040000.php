<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125040000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Schedules rule on a display, or in a place.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE design ADD place_id VARCHAR(80) DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE design DROP place_id');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
