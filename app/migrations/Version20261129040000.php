<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;
use UpperPane\App\Display\Summary;

final class Version20261129040000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Maps of triggers on each display: none yet.';
    }

    public function up(Schema $schema): void
    {
        $rows = $this->connection->iterateAssociative("SELECT id, document, settled FROM surveyed_display WHERE JSON_EXTRACT(settled, '$.triggers') IS NULL");
        foreach ($rows as $row) {
            [$document, $settled] = array_map(static fn (mixed $json): mixed => is_string($json) ? json_decode($json, true) : null, [$row['document'], $row['settled']]);
            if (is_array($document) && is_array($settled)) {
                $settled['triggers'] = '';
                $this->addSql('UPDATE surveyed_display SET settled = ?, alike = ? WHERE id = ?', [
                    json_encode($settled, JSON_THROW_ON_ERROR), Summary::alike(['settled' => $settled] + $document), $row['id'],
                ]);
            }
        }
    }

    public function down(Schema $schema): void
    {
        $this->addSql("UPDATE surveyed_display SET settled = JSON_REMOVE(settled, '$.triggers')");
    }
}
