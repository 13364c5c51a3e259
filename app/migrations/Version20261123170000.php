<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261123170000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Accounts, places, displays, media, designs with revisions, releases, players; jobs, sessions and counters.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE account (password_hash VARCHAR(255) NOT NULL, login VARCHAR(80) NOT NULL, name VARCHAR(120) NOT NULL, role VARCHAR(40) NOT NULL, PRIMARY KEY (login)) DEFAULT CHARACTER SET utf8mb4
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE design (revision INT NOT NULL, id VARCHAR(80) NOT NULL, kind VARCHAR(16) NOT NULL, name VARCHAR(200) NOT NULL, document JSON NOT NULL, display_id VARCHAR(80) DEFAULT NULL, saved_at DATETIME NOT NULL, saved_by VARCHAR(80) DEFAULT NULL, INDEX IDX_CD4F5A303BC4BCD95E237E06 (kind, name), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE design_revision (id INT AUTO_INCREMENT NOT NULL, design_id VARCHAR(80) NOT NULL, number INT DEFAULT NULL, document JSON NOT NULL, saved_at DATETIME NOT NULL, saved_by VARCHAR(80) DEFAULT NULL, note VARCHAR(200) DEFAULT NULL, INDEX IDX_B641778AE41DC9B21EBFFEB0 (design_id, saved_at), UNIQUE INDEX UNIQ_B641778AE41DC9B296901F54 (design_id, number), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE handed_release (id INT AUTO_INCREMENT NOT NULL, number INT NOT NULL, sha256 VARCHAR(64) NOT NULL, file VARCHAR(120) NOT NULL, bytes INT NOT NULL, source_kind VARCHAR(16) NOT NULL, source_id VARCHAR(80) NOT NULL, source_revision INT DEFAULT NULL, name VARCHAR(255) NOT NULL, handed_over_at DATETIME NOT NULL, handed_over_by VARCHAR(80) DEFAULT NULL, document JSON NOT NULL, display_id VARCHAR(80) NOT NULL, INDEX IDX_2558933A51A2DF33 (display_id), UNIQUE INDEX UNIQ_2558933A51A2DF3396901F54 (display_id, number), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE media_asset (state VARCHAR(16) NOT NULL, refusal VARCHAR(500) DEFAULT NULL, width INT DEFAULT NULL, height INT DEFAULT NULL, length_ms INT DEFAULT NULL, type VARCHAR(80) DEFAULT NULL, sha256 VARCHAR(64) DEFAULT NULL, file VARCHAR(120) DEFAULT NULL, thumbnail VARCHAR(120) DEFAULT NULL, id VARCHAR(80) NOT NULL, name VARCHAR(255) NOT NULL, bytes BIGINT NOT NULL, brought_in_at DATETIME NOT NULL, brought_in_by VARCHAR(80) DEFAULT NULL, INDEX IDX_1DB69EEDA7A010E5 (brought_in_at), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE pairing (claim VARCHAR(64) NOT NULL, code VARCHAR(8) NOT NULL, ends_at DATETIME NOT NULL, player_id VARCHAR(80) DEFAULT NULL, UNIQUE INDEX UNIQ_8816ECFC77153098 (code), INDEX IDX_8816ECFC99E6F5DF (player_id), PRIMARY KEY (claim)) DEFAULT CHARACTER SET utf8mb4
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE place (id VARCHAR(80) NOT NULL, name VARCHAR(120) NOT NULL, position INT NOT NULL, parent_id VARCHAR(80) DEFAULT NULL, INDEX IDX_741D53CD727ACA70 (parent_id), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE player (revoked_at DATETIME DEFAULT NULL, called_at DATETIME DEFAULT NULL, plays_sha256 VARCHAR(64) DEFAULT NULL, plays_since DATETIME DEFAULT NULL, trouble VARCHAR(300) DEFAULT NULL, id VARCHAR(80) NOT NULL, name VARCHAR(120) NOT NULL, secret VARCHAR(64) NOT NULL, bound_at DATETIME NOT NULL, display_id VARCHAR(80) NOT NULL, UNIQUE INDEX UNIQ_98197A655CA2E8E5 (secret), INDEX IDX_98197A6551A2DF33 (display_id), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE surveyed_display (id VARCHAR(80) NOT NULL, document JSON NOT NULL, position INT NOT NULL, current_id INT DEFAULT NULL, place_id VARCHAR(80) NOT NULL, INDEX IDX_20BAD86DF58A7A5C (current_id), INDEX IDX_20BAD86DDA6A219 (place_id), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE handed_release ADD CONSTRAINT FK_2558933A51A2DF33 FOREIGN KEY (display_id) REFERENCES surveyed_display (id)
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE pairing ADD CONSTRAINT FK_8816ECFC99E6F5DF FOREIGN KEY (player_id) REFERENCES player (id)
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE place ADD CONSTRAINT FK_741D53CD727ACA70 FOREIGN KEY (parent_id) REFERENCES place (id)
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE player ADD CONSTRAINT FK_98197A6551A2DF33 FOREIGN KEY (display_id) REFERENCES surveyed_display (id)
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE surveyed_display ADD CONSTRAINT FK_20BAD86DF58A7A5C FOREIGN KEY (current_id) REFERENCES handed_release (id)
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE surveyed_display ADD CONSTRAINT FK_20BAD86DDA6A219 FOREIGN KEY (place_id) REFERENCES place (id)
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE job (id BIGINT UNSIGNED AUTO_INCREMENT NOT NULL, queue VARCHAR(40) NOT NULL, body LONGTEXT NOT NULL, headers LONGTEXT NOT NULL, due_ms BIGINT NOT NULL, INDEX job_due (queue, due_ms, id), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE sessions (sess_id VARBINARY(128) NOT NULL, sess_data MEDIUMBLOB NOT NULL, sess_lifetime INT UNSIGNED NOT NULL, sess_time INT UNSIGNED NOT NULL, INDEX sessions_lifetime (sess_lifetime), PRIMARY KEY (sess_id)) DEFAULT CHARACTER SET utf8mb4
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE cache_items (item_id VARBINARY(255) NOT NULL, item_data MEDIUMBLOB NOT NULL, item_lifetime INT UNSIGNED DEFAULT NULL, item_time INT UNSIGNED NOT NULL, PRIMARY KEY (item_id)) DEFAULT CHARACTER SET utf8mb4
            SQL);
    }

    public function down(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            ALTER TABLE handed_release DROP FOREIGN KEY FK_2558933A51A2DF33
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE pairing DROP FOREIGN KEY FK_8816ECFC99E6F5DF
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE place DROP FOREIGN KEY FK_741D53CD727ACA70
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE player DROP FOREIGN KEY FK_98197A6551A2DF33
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE surveyed_display DROP FOREIGN KEY FK_20BAD86DF58A7A5C
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE surveyed_display DROP FOREIGN KEY FK_20BAD86DDA6A219
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE account
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE design
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE design_revision
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE handed_release
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE media_asset
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE pairing
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE place
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE player
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE surveyed_display
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE job
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE sessions
            SQL);
        $this->addSql(<<<'SQL'
            DROP TABLE cache_items
            SQL);
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
