<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What operators ask displays for, and until when somebody learns what the sensors of a display say.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("CREATE TABLE IF NOT EXISTS operator_signal (
            id VARCHAR(26) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL, display_id VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
            `signal` VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL, row_said JSON DEFAULT NULL, said_ms BIGINT NOT NULL, said_by VARCHAR(80) DEFAULT NULL,
            PRIMARY KEY (id), INDEX operator_signal_on (display_id, said_ms),
            CONSTRAINT fk_operator_signal_display FOREIGN KEY (display_id) REFERENCES surveyed_display (id) ON DELETE CASCADE
        ) DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci ENGINE = InnoDB");
        $this->addSql('ALTER TABLE surveyed_display ADD COLUMN IF NOT EXISTS learns_until DATETIME DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE IF EXISTS operator_signal');
        $this->addSql('ALTER TABLE surveyed_display DROP COLUMN IF EXISTS learns_until');
    }
}
