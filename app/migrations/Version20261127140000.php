<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261127140000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What was really seen on each display, by day and thing.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE IF NOT EXISTS seen_thing (
            display_id VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL, day DATE NOT NULL, output SMALLINT UNSIGNED NOT NULL, thing CHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
            part VARCHAR(2000) NOT NULL, element VARCHAR(2000) NOT NULL, item VARCHAR(200) DEFAULT NULL, media VARCHAR(255) DEFAULT NULL,
            first_ms BIGINT NOT NULL, last_ms BIGINT NOT NULL, times INT UNSIGNED NOT NULL, ms BIGINT UNSIGNED NOT NULL, missed INT UNSIGNED NOT NULL, missed_ms BIGINT UNSIGNED NOT NULL,
            PRIMARY KEY (display_id, day, output, thing), INDEX seen_day (day)) DEFAULT CHARACTER SET utf8mb4');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE seen_thing');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
