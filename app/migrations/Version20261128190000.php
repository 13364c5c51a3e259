<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;
use UpperPane\App\Layout\References;

final class Version20261128190000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Languages in which revisions of what is filled in say nothing, as rows.';
    }

    public function up(Schema $schema): void
    {
        $rows = $this->connection->iterateAssociative(
            "SELECT v.design_id, v.number, v.document, t.document AS template FROM design_revision v JOIN design d ON d.id = v.design_id AND d.kind = 'filled'
             JOIN design_revision t ON t.design_id = JSON_VALUE(v.document, '$.template') COLLATE utf8mb4_nopad_bin AND t.number = JSON_VALUE(v.document, '$.template_revision')
             WHERE v.number IS NOT NULL",
        );
        foreach ($rows as $row) {
            [$filled, $template] = array_map(static fn (mixed $json): mixed => is_string($json) ? json_decode($json, true) : null, [$row['document'], $row['template']]);
            if (is_array($filled) && is_array($template)) {
                /** @var array<string, mixed> $filled */
                /** @var array<string, mixed> $template */
                foreach (References::lacking($filled, $template) as $language) {
                    $this->addSql("INSERT IGNORE INTO reference (design_id, revision, kind, thing_id) VALUES (?, ?, 'lacks', ?)", [$row['design_id'], $row['number'], $language]);
                }
            }
        }
    }

    public function down(Schema $schema): void
    {
        $this->addSql("DELETE FROM reference WHERE kind = 'lacks'");
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
