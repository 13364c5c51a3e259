<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;
use UpperPane\App\Handover\MadeOf;

final class Version20261127120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What releases were made of, as rows.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE IF NOT EXISTS release_part (made_of CHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
            design_id VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL, revision INT NOT NULL,
            INDEX revision_in (design_id, revision), PRIMARY KEY (made_of, design_id)) DEFAULT CHARACTER SET utf8mb4');
        $this->addSql('ALTER TABLE handed_release ADD COLUMN IF NOT EXISTS made_of CHAR(32) CHARACTER SET ascii COLLATE ascii_bin DEFAULT NULL AFTER parts');
        $lists = [];
        if ($this->connection->fetchOne("SELECT 1 FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = 'handed_release' AND column_name = 'parts'") !== false) {
            $lists = $this->connection->fetchFirstColumn('SELECT DISTINCT parts FROM handed_release WHERE parts IS NOT NULL');
            $this->moved($lists);
            $this->addSql('ALTER TABLE handed_release DROP COLUMN IF EXISTS parts');
        }
        foreach ($this->connection->fetchAllKeyValue("SELECT id, kept FROM binned WHERE kind = 'display'") as $id => $kept) {
            $kept = (array) json_decode(is_string($kept) ? $kept : '', true);
            $releases = is_array($kept['rows'] ?? null) && is_array($kept['rows']['handed_release'] ?? null) ? $kept['rows']['handed_release'] : [];
            $before = array_filter($releases, static fn (mixed $one): bool => is_array($one) && is_string($one['parts'] ?? null));
            if ($before === []) {
                continue;
            }
            foreach ($before as $place => ['parts' => $text]) {
                $kept['rows']['handed_release'][$place] = ['made_of' => MadeOf::key(self::parts($text))] + array_diff_key($releases[$place], ['parts' => 1]);
            }
            $this->moved(array_column($before, 'parts'));
            $this->addSql('UPDATE binned SET kept = ? WHERE id = ?', [json_encode($kept, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE), $id]);
        }
    }

    /** @param array<mixed> $lists as they were kept */
    private function moved(array $lists): void
    {
        foreach (array_filter($lists, is_string(...)) as $text) {
            $key = MadeOf::key(self::parts($text));
            foreach (self::parts($text) as $design => $revision) {
                $this->addSql('INSERT IGNORE INTO release_part (made_of, design_id, revision) VALUES (?, ?, ?)', [$key, (string) $design, $revision]);
            }
            $this->addSql('UPDATE handed_release SET made_of = ? WHERE parts = ?', [$key, $text]);
        }
    }

    /** @return array<int> revisions by the ids of their designs */
    private static function parts(string $text): array
    {
        return array_filter(array_column((array) json_decode($text, true), 'revision', 'id'), is_int(...));
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('What releases were made of is kept as rows alone.');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
