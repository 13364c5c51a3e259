<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128110000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Settings of places and displays: what each states, what holds on each display, and what held when something was handed over.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE place ADD COLUMN IF NOT EXISTS settings LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '{}' CHECK (JSON_VALID(settings))");
        $this->addSql("ALTER TABLE place ADD COLUMN IF NOT EXISTS timezone VARCHAR(64) DEFAULT NULL");
        $this->addSql("UPDATE place SET settings = JSON_OBJECT('timezone', timezone) WHERE timezone IS NOT NULL AND JSON_LENGTH(settings) = 0");
        $this->addSql("ALTER TABLE surveyed_display ADD COLUMN IF NOT EXISTS settings LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '{}' CHECK (JSON_VALID(settings))");
        $this->addSql("ALTER TABLE surveyed_display ADD COLUMN IF NOT EXISTS settled LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '{}' CHECK (JSON_VALID(settled))");
        $this->addSql('ALTER TABLE handed_release ADD COLUMN IF NOT EXISTS settings LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin DEFAULT NULL CHECK (settings IS NULL OR JSON_VALID(settings))');
    }

    public function postUp(Schema $schema): void
    {
        // What holds on each display is worked out here once; from then on wherever it changes.
        $zones = $this->connection->fetchAllKeyValue('SELECT id, timezone FROM place');
        $parents = $this->connection->fetchAllKeyValue('SELECT id, parent_id FROM place');
        foreach ($this->connection->fetchAllNumeric("SELECT id, place_id, JSON_VALUE(document, '$.timezone') FROM surveyed_display WHERE JSON_LENGTH(settled) = 0") as [$id, $place, $own]) {
            for ($at = $place; $at !== null && ($zones[$at] ?? null) === null; $at = $parents[$at] ?? null) {
                // On to the place in which it lies.
            }
            $zone = $at === null ? $own : $zones[$at];
            $this->connection->executeStatement(
                "UPDATE surveyed_display SET settled = ?, summary = JSON_SET(summary, '$.timezone', ?) WHERE id = ?",
                [json_encode(['timezone' => $zone, 'style' => '', 'languages' => '', 'standby' => '', 'vars' => new \stdClass()], JSON_THROW_ON_ERROR), $zone, $id],
            );
        }
        $this->connection->executeStatement('ALTER TABLE place DROP COLUMN IF EXISTS timezone');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE place ADD timezone VARCHAR(64) DEFAULT NULL');
        $this->addSql("UPDATE place SET timezone = JSON_VALUE(settings, '$.timezone')");
        $this->addSql('ALTER TABLE place DROP settings');
        $this->addSql('ALTER TABLE surveyed_display DROP settings, DROP settled');
        $this->addSql('ALTER TABLE handed_release DROP settings');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
