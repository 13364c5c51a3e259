<?php

declare(strict_types=1);

namespace UpperPane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Json;

final class Version20261127020000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Walls of LED cabinets that were surveyed before such a wall was one output keep the outputs that their panels had.';
    }

    public function up(Schema $schema): void
    {
        foreach ($this->connection->fetchAllKeyValue('SELECT id, document FROM surveyed_display') as $id => $text) {
            $document = is_string($text) ? Json::decode($text) : null;
            $said = is_array($document) ? self::withOutputs($document) : null;
            if ($said !== null) {
                $this->addSql('UPDATE surveyed_display SET document = ? WHERE id = ?', [json_encode($said, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION), $id]);
            }
        }
    }

    public function down(Schema $schema): void
    {
        // The outputs that are written are the outputs that they had.
    }

    /**
     * @param array<mixed> $document
     * @return ?array<mixed> null where nothing is to be written
     */
    public static function withOutputs(array $document): ?array
    {
        $panels = is_array($document['panels'] ?? null) ? $document['panels'] : [];
        $fed = array_filter($panels, static fn (mixed $panel): bool => is_array($panel) && isset($panel['output']));
        if (($document['technology'] ?? null) !== 'led' || count($panels) < 2 || isset($document['processor']) || $fed !== []) {
            return null;
        }
        // Panels that are no LED cabinets are fed as these were until now.
        foreach (Display::fromArray(['technology' => 'lcd'] + $document)->wall->panels as $index => $placed) {
            if (is_array($panels[$index])) {
                $panels[$index] += ($placed->player === null ? [] : ['player' => $placed->player]) + ['output' => $placed->output];
            }
        }

        return array_replace($document, ['panels' => $panels]);
    }
}
