<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128160000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Roles by place, guests, and where somebody is signed in. Whoever had an account before may do everything, as he could.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE IF NOT EXISTS role_grant (id INT AUTO_INCREMENT NOT NULL, login VARCHAR(80) NOT NULL, role VARCHAR(16) NOT NULL, place_id VARCHAR(80) DEFAULT NULL,
             INDEX IDX_role_grant_login (login), INDEX IDX_role_grant_place (place_id), PRIMARY KEY(id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_nopad_bin`',
        );
        $this->addSql("INSERT INTO role_grant (login, role) SELECT login, 'administrator' FROM account WHERE login NOT IN (SELECT login FROM role_grant)");
        $this->addSql('ALTER TABLE account DROP COLUMN IF EXISTS role');
        $this->addSql('ALTER TABLE account ADD COLUMN IF NOT EXISTS ends_at DATETIME DEFAULT NULL, ADD COLUMN IF NOT EXISTS invitation VARCHAR(64) DEFAULT NULL');
        $this->addSql(
            'CREATE TABLE IF NOT EXISTS signed_in (id VARCHAR(26) NOT NULL, login VARCHAR(80) NOT NULL, agent VARCHAR(200) NOT NULL, began_at DATETIME NOT NULL, seen_at DATETIME NOT NULL,
             INDEX IDX_signed_in_login (login), PRIMARY KEY(id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_nopad_bin`',
        );
    }

    public function down(Schema $schema): void
    {
        $this->addSql("ALTER TABLE account ADD role VARCHAR(40) NOT NULL DEFAULT 'ROLE_DESIGNER'");
        $this->addSql('ALTER TABLE account DROP ends_at, DROP invitation');
        $this->addSql('DROP TABLE role_grant');
        $this->addSql('DROP TABLE signed_in');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
