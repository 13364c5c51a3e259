<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;
use UpperPane\App\Display\Summary;
use UpperPane\Core\Display\Display;

final class Version20261123233000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Surveys with revisions and what lists say of them; time zones of places; players with several outputs.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE surveyed_display ADD revision INT NOT NULL DEFAULT 1, ADD saved_at DATETIME DEFAULT NULL, ADD saved_by VARCHAR(80) DEFAULT NULL,
            ADD alignment_until DATETIME DEFAULT NULL, ADD summary JSON NOT NULL DEFAULT '{}', ADD shape VARCHAR(64) NOT NULL DEFAULT ''");
        $this->addSql('ALTER TABLE surveyed_display ALTER revision DROP DEFAULT, ALTER summary DROP DEFAULT, ALTER shape DROP DEFAULT');
        $this->addSql('ALTER TABLE place ADD timezone VARCHAR(64) DEFAULT NULL');
        $this->addSql('ALTER TABLE handed_release ADD shape VARCHAR(64) DEFAULT NULL');
        $this->addSql('ALTER TABLE player ADD part VARCHAR(80) DEFAULT NULL, ADD calls JSON DEFAULT NULL');
        $this->addSql('CREATE TABLE survey_revision (id INT AUTO_INCREMENT NOT NULL, display_id VARCHAR(80) NOT NULL, number INT DEFAULT NULL, document JSON NOT NULL,
            saved_at DATETIME NOT NULL, saved_by VARCHAR(80) DEFAULT NULL, note VARCHAR(200) DEFAULT NULL, INDEX IDX_319453EB51A2DF33BF396750 (display_id, id), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
    }

    public function postUp(Schema $schema): void
    {
        foreach ($this->connection->fetchAllAssociative('SELECT id, document FROM surveyed_display') as $row) {
            $document = is_string($row['document']) ? json_decode($row['document'], true) : null;
            if (is_array($document)) {
                $display = Display::fromArray($document);
                $this->connection->update('surveyed_display', [
                    'summary' => json_encode(Summary::of($display, null), JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION),
                    'shape' => Summary::shape($display),
                ], ['id' => $row['id']]);
            }
        }
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE survey_revision');
        $this->addSql('ALTER TABLE surveyed_display DROP revision, DROP saved_at, DROP saved_by, DROP alignment_until, DROP summary, DROP shape');
        $this->addSql('ALTER TABLE place DROP timezone');
        $this->addSql('ALTER TABLE handed_release DROP shape');
        $this->addSql('ALTER TABLE player DROP part, DROP calls');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
