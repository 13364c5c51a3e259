<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;
use UpperPane\App\Display\Summary;

final class Version20261127080000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Releases are manifests of sheets, handed over by jobs; pointers are due until they are written.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE player ADD IF NOT EXISTS build VARCHAR(64) DEFAULT NULL, ADD IF NOT EXISTS report_every_s INT DEFAULT NULL,
            ADD IF NOT EXISTS pointer_due TINYINT(1) NOT NULL DEFAULT 1, ADD INDEX IF NOT EXISTS IDX_98197A65DUE (pointer_due)');
        $this->addSql('ALTER TABLE handed_release MODIFY document JSON DEFAULT NULL, ADD IF NOT EXISTS manifest TINYINT(1) NOT NULL DEFAULT 0, ADD IF NOT EXISTS whole_sha256 VARCHAR(64) DEFAULT NULL,
            ADD IF NOT EXISTS ruling JSON DEFAULT NULL, ADD IF NOT EXISTS survey_revision INT DEFAULT NULL, ADD IF NOT EXISTS plan_trouble VARCHAR(500) DEFAULT NULL,
            ADD IF NOT EXISTS handing_id VARCHAR(26) DEFAULT NULL, ADD IF NOT EXISTS puts_back INT DEFAULT NULL, ADD IF NOT EXISTS pruned TINYINT(1) NOT NULL DEFAULT 0,
            ADD INDEX IF NOT EXISTS IDX_2558933AHANDING (handing_id), ADD INDEX IF NOT EXISTS IDX_2558933APLANNED (planned_until)');
        $this->addSql("ALTER TABLE surveyed_display ADD IF NOT EXISTS alike VARCHAR(64) NOT NULL DEFAULT '', ADD IF NOT EXISTS name VARCHAR(255) AS (COALESCE(JSON_VALUE(document, '$.name'), id)) STORED");
        $this->addSql('CREATE TABLE IF NOT EXISTS handing (id VARCHAR(26) NOT NULL, name VARCHAR(255) NOT NULL, orders JSON NOT NULL, displays JSON NOT NULL, of INT NOT NULL, begun_at DATETIME NOT NULL,
            begun_by VARCHAR(80) DEFAULT NULL, state VARCHAR(16) NOT NULL, done INT NOT NULL, trouble VARCHAR(1000) DEFAULT NULL, ended_at DATETIME DEFAULT NULL,
            INDEX IDX_HANDING_BEGUN (begun_at), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
        $this->addSql('CREATE TABLE IF NOT EXISTS player_report (id BIGINT UNSIGNED AUTO_INCREMENT NOT NULL, player_id VARCHAR(80) NOT NULL, said JSON NOT NULL, PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
        $this->addSql('CREATE TABLE IF NOT EXISTS binned (id INT AUTO_INCREMENT NOT NULL, kind VARCHAR(16) NOT NULL, thing_id VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
            name VARCHAR(255) NOT NULL, kept LONGTEXT NOT NULL, deleted_at DATETIME NOT NULL, deleted_by VARCHAR(80) DEFAULT NULL, INDEX binned_things (kind, thing_id), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
        // What waits in the one queue that there was goes to that of its kind.
        $this->addSql('ALTER TABLE job ADD IF NOT EXISTS noted_ms BIGINT NOT NULL DEFAULT 0');
        $this->addSql("UPDATE job SET queue = 'probe' WHERE queue = 'jobs'");
        $this->addSql('CREATE TABLE IF NOT EXISTS worker_beat (name VARCHAR(40) NOT NULL, beat_ms BIGINT NOT NULL, PRIMARY KEY (name)) DEFAULT CHARACTER SET utf8mb4');
        $this->addSql('CREATE TABLE IF NOT EXISTS chore (name VARCHAR(40) NOT NULL, next_ms BIGINT NOT NULL, done_ms BIGINT DEFAULT NULL, trouble VARCHAR(500) DEFAULT NULL,
            PRIMARY KEY (name)) DEFAULT CHARACTER SET utf8mb4');
        // Of two schedules of one display or place the one that rules today stays: that with the last id. The other stays as a design that rules nowhere.
        foreach (['display_id', 'place_id'] as $where) {
            $this->addSql("UPDATE design d JOIN design later ON later.kind = 'schedule' AND later.$where = d.$where AND later.id > d.id SET d.$where = NULL WHERE d.kind = 'schedule'");
        }
        $this->addSql("ALTER TABLE design ADD IF NOT EXISTS rules_on VARCHAR(170) AS (IF(kind = 'schedule', COALESCE(CONCAT('display ', display_id), CONCAT('place ', place_id)), NULL)) STORED,
            ADD UNIQUE INDEX IF NOT EXISTS one_schedule (rules_on)");
        foreach ($this->connection->fetchAllKeyValue('SELECT id, document FROM surveyed_display') as $id => $text) {
            $document = is_string($text) ? json_decode($text, true) : null;
            $this->addSql('UPDATE surveyed_display SET alike = ? WHERE id = ?', [Summary::alike(is_array($document) ? $document : []), $id]);
        }
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE design DROP INDEX one_schedule, DROP rules_on');
        $this->addSql('DROP TABLE handing');
        $this->addSql('DROP TABLE worker_beat');
        $this->addSql('DROP TABLE chore');
        $this->addSql('DROP TABLE binned');
        $this->addSql('DROP TABLE player_report');
        $this->addSql('ALTER TABLE job DROP noted_ms');
        $this->addSql('ALTER TABLE surveyed_display DROP alike, DROP name');
        $this->addSql('ALTER TABLE handed_release DROP manifest, DROP whole_sha256, DROP ruling, DROP survey_revision, DROP plan_trouble, DROP handing_id, DROP puts_back, DROP pruned');
        $this->addSql('ALTER TABLE player DROP build, DROP report_every_s, DROP pointer_due');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
