<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125000500 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Type faces that are brought in.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE brought_face (id VARCHAR(26) NOT NULL, family VARCHAR(80) NOT NULL, weight INT NOT NULL, file VARCHAR(120) NOT NULL,
            sha256 VARCHAR(64) NOT NULL, bytes INT NOT NULL, cap_share DOUBLE PRECISION NOT NULL, brought_in_at DATETIME NOT NULL, brought_in_by VARCHAR(80) DEFAULT NULL,
            UNIQUE INDEX face_of_family (family, weight), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE brought_face');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
