<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\Connection;
use League\Flysystem\FilesystemOperator;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Target;
use UpperPane\App\Jobs\Errand;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\References;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Media\Publisher;
use UpperPane\App\Text\HouseFaces;

/**
 * What takeovers would take that are prepared, and the faces and marks of house styles: players keep these files before they are needed, so that what is put up in
 * a hurry does not wait for a slow line.
 */
final class Beforehand implements Errand
{
    /** As it was told to players last. */
    private const TOLD = 'beforehand.json';

    /** No more than this, so that no player fills its disk with what may never be shown. */
    private const MOST_FILES = 100;
    private const MOST_BYTES = 500_000_000;

    /** It is looked at anew no sooner. */
    private const EVERY_S = 5;

    private ?int $lookedS = null;

    public function __construct(
        private readonly Connection $connection,
        private readonly HouseFaces $faces,
        private readonly Publisher $publisher,
        private readonly ClockInterface $clock,
        #[Target('published')]
        private readonly FilesystemOperator $published,
    ) {
    }

    /** @return list<array{name: string, url: string, sha256: string, bytes: int}> the small ones first */
    public function files(): array
    {
        $reached = "WITH RECURSIVE reached (id, revision) AS (
            SELECT d.id, d.revision FROM design d WHERE d.kind = ? OR (d.kind = ? AND JSON_VALUE(d.document, '$.kind') = 'takeover')
            UNION SELECT n.id, n.revision FROM reached r JOIN reference f ON f.design_id = r.id AND f.revision = r.revision AND f.kind = ? JOIN design n ON n.id = f.thing_id
        ) SELECT DISTINCT f.kind, f.thing_id, m.name, m.file, m.sha256, m.bytes FROM reached r JOIN reference f ON f.design_id = r.id AND f.revision = r.revision AND f.kind IN (?, ?)
        LEFT JOIN media_asset m ON f.kind = ? AND m.id = f.thing_id AND m.state = ?";
        $kinds = [DesignKind::Style->value, DesignKind::Overlay->value, References::DESIGN, References::MEDIA, References::FACE, References::MEDIA, MediaAsset::READY];
        [$files, $families] = [[], []];
        foreach ($this->connection->fetchAllAssociative($reached, $kinds) as $row) {
            if ($row['kind'] === References::FACE) {
                $families[] = $row['thing_id'];
            } elseif (is_string($row['file']) && is_string($row['sha256']) && is_numeric($row['bytes'])) {
                $files[$row['file']] = ['name' => is_string($row['name']) ? $row['name'] : '', 'url' => '/' . $row['file'], 'sha256' => $row['sha256'], 'bytes' => (int) $row['bytes']];
            }
        }
        foreach ($this->faces->all() as $face) {
            if (in_array($face['family'], $families, true)) {
                $files[$face['url']] = ['name' => "{$face['family']} {$face['weight']}", 'url' => $face['url'], 'sha256' => $face['sha256'], 'bytes' => $face['bytes']];
            }
        }
        usort($files, static fn (array $a, array $b): int => [$a['bytes'], $a['url']] <=> [$b['bytes'], $b['url']]);
        $left = self::MOST_BYTES;

        return array_values(array_filter(array_slice($files, 0, self::MOST_FILES), static function (array $file) use (&$left): bool {
            $left -= $file['bytes'];

            return $left >= 0;
        }));
    }

    /** Where it is another by now, all players are told: first it is noted that they are due, so that it holds whatever is killed in between. */
    public function doDue(): int
    {
        $now = $this->clock->now()->getTimestamp();
        if ($this->lookedS !== null && abs($now - $this->lookedS) < self::EVERY_S) {
            return 0;
        }
        $this->lookedS = $now;
        $told = json_encode($this->files(), JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE);
        if ($this->published->fileExists(self::TOLD) && $this->published->read(self::TOLD) === $told) {
            return 0;
        }
        $this->connection->executeStatement('UPDATE player SET pointer_due = 1 WHERE revoked_at IS NULL');
        $this->publisher->replace(self::TOLD, $told);

        return 1;
    }

    public static function isQuick(): bool
    {
        return true;
    }

    public function allDue(): void
    {
        $this->lookedS = null;
    }
}
