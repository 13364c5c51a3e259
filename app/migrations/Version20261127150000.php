<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261127150000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'The last picture of what each player has on its glass.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE IF NOT EXISTS glass_picture (
            player_id VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL, output SMALLINT UNSIGNED NOT NULL,
            taken_at DATETIME(3) NOT NULL, wanted_at DATETIME DEFAULT NULL, picture MEDIUMBLOB NOT NULL,
            PRIMARY KEY (player_id, output), CONSTRAINT glass_of FOREIGN KEY (player_id) REFERENCES player (id) ON DELETE CASCADE) DEFAULT CHARACTER SET utf8mb4');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE glass_picture');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
