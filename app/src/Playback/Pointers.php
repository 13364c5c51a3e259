<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use League\Flysystem\FilesystemOperator;
use Symfony\Component\DependencyInjection\Attribute\Target;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use UpperPane\App\Display\DisplaysChanged;
use UpperPane\App\Handover\Beforehand;
use UpperPane\App\Handover\InForce;
use UpperPane\App\Handover\Toolchain;
use UpperPane\App\Jobs\Errand;
use UpperPane\App\Media\Publisher;
use UpperPane\App\Storage\Transaction;
use UpperPane\App\Trigger\OperatorSignals;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Feed;
use UpperPane\Core\Document\Json;
use UpperPane\Core\Handover\Release;
use UpperPane\Core\Handover\Sheet;
use UpperPane\Core\Playback\Rhythm;

/**
 * The small files that players poll: which release their display is to play (docs/formats/release.md).
 *
 * Whoever changes what stands in a pointer notes in the same transaction that it is due; it is written from the database, by whoever comes
 * first, and is due until it is written. So what a player reads and what the desk knows agree, whatever is killed in between.
 */
final class Pointers implements Errand
{
    public const FORMAT = 'upper-pane/pointer@2';

    /** So many are written under one lock. */
    private const BATCH = 100;
    private const CHUNK = 500;

    /** @var array<string, mixed> planes of the release of a hash, since many displays share one */
    private array $planes = [];

    public function __construct(
        private readonly Connection $connection,
        private readonly Transaction $transaction,
        private readonly Publisher $publisher,
        private readonly Toolchain $toolchain,
        private readonly InForce $inForce,
        private readonly Beforehand $beforehand,
        private readonly OperatorSignals $signals,
        #[Target('published')]
        private readonly FilesystemOperator $published,
    ) {
    }

    /** All of their players are told anew, as soon as it holds. */
    #[AsEventListener]
    public function due(DisplaysChanged $changed): void
    {
        foreach (array_chunk($changed->ids, self::CHUNK) as $ids) {
            $this->connection->executeStatement('UPDATE player SET pointer_due = 1 WHERE display_id IN (?) AND revoked_at IS NULL', [$ids], [ArrayParameterType::STRING]);
        }
        $this->transaction->afterwards(function () use ($changed): void {
            foreach (array_chunk($changed->ids, self::CHUNK) as $ids) {
                while ($this->write('AND display_id IN (?)', [$ids], [ArrayParameterType::STRING]) > 0) {
                }
            }
        });
    }

    public static function isQuick(): bool
    {
        return true;
    }

    /** All of them: after a restart, and where the page of the players is another one. */
    public function allDue(): void
    {
        $this->connection->executeStatement('UPDATE player SET pointer_due = 1');
    }

    /** Writes some of those that are due, and tells how many. */
    public function doDue(): int
    {
        return $this->write('', [], []);
    }

    /**
     * @param list<mixed> $values
     * @param array<int<0, max>, ArrayParameterType> $types
     */
    private function write(string $which, array $values, array $types): int
    {
        return $this->connection->transactional(function (Connection $connection) use ($which, $values, $types): int {
            $ids = $connection->fetchFirstColumn("SELECT id FROM player WHERE pointer_due = 1 $which ORDER BY id LIMIT " . self::BATCH . ' FOR UPDATE SKIP LOCKED', $values, $types);
            if ($ids === []) {
                return 0;
            }
            $rows = $connection->fetchAllAssociative(
                "SELECT p.id, p.name, p.secret, p.part, p.revoked_at, p.build, s.id AS display_id, s.summary, s.alignment_until, s.learns_until,
                    IF(s.alignment_until IS NULL, NULL, s.document) AS document, r.id AS release_id, r.number, r.file, r.sha256, r.bytes, r.manifest
                 FROM player p JOIN surveyed_display s ON s.id = p.display_id LEFT JOIN handed_release r ON r.id = s.current_id WHERE p.id IN (?)",
                [$ids],
                [ArrayParameterType::STRING],
            );
            $displays = array_values(array_unique(array_filter(array_column($rows, 'display_id'), is_string(...))));
            $above = $this->inForce->planes($displays);
            $said = $this->signals->told($displays);
            $every = Rhythm::of((int) self::number($connection->fetchOne('SELECT COUNT(*) FROM player WHERE revoked_at IS NULL')));
            $beforehand = $this->beforehand->files();
            foreach ($rows as $row) {
                $pointer = $row['revoked_at'] === null
                    ? $this->pointer($row, $every, $above[self::text($row['display_id'])] ?? []) + ['beforehand' => $beforehand] + self::asked($row, $said[self::text($row['display_id'])] ?? [])
                    : ['revoked' => true];
                $this->put(self::text($row['secret']), $pointer);
            }
            $connection->executeStatement('UPDATE player SET pointer_due = 0 WHERE id IN (?)', [$ids], [ArrayParameterType::STRING]);

            return count($rows);
        });
    }

    /**
     * @param array<string, mixed> $row
     * @param list<array<string, mixed>> $above what stands above what was handed over
     * @return array<string, mixed>
     */
    private function pointer(array $row, int $every, array $above): array
    {
        /** @var array{name: string, timezone: string, raster: array<string, int>, feeds: list<array{player: ?string, output: ?int}>} $summary */
        $summary = json_decode(self::text($row['summary']), true, flags: JSON_THROW_ON_ERROR);
        $part = $row['part'];
        $isManifest = $row['manifest'] === 1;
        $named = $row['release_id'] === null ? null : ['url' => '/' . self::text($row['file']), 'sha256' => self::text($row['sha256']), 'bytes' => $row['bytes']];

        return [
            'revoked' => false,
            'report_every_s' => $every,
            'player' => ['name' => $row['name'], 'part' => $part, 'outputs' => Player::outputsOf($summary['feeds'], is_string($part) ? $part : null)],
            'display' => ['id' => $row['display_id'], 'name' => $summary['name'], 'timezone' => $summary['timezone'], 'raster' => $summary['raster']],
            'alignment' => self::alignment($row),
            'release' => $named === null ? null : ['number' => $row['number']] + ($isManifest && $row['build'] === null ? $this->whole($row, $named, $summary['name']) : $named),
            'manifest' => $isManifest ? $named : null,
            'planes' => $isManifest && $named !== null && is_array($planes = $this->manifest($named)['planes'] ?? null) ? InForce::above($planes, $above) : null,
        ];
    }

    /**
     * What an operator asks for, and whether somebody wants to learn what sensors say.
     *
     * @param array<string, mixed> $row
     * @param list<array<string, mixed>> $said
     * @return array<string, mixed> nothing of what nobody asks for
     */
    private static function asked(array $row, array $said): array
    {
        return ($said === [] ? [] : ['said' => $said]) + (is_string($row['learns_until']) ? ['learns_until' => strtr($row['learns_until'], ' ', 'T') . 'Z'] : []);
    }

    /**
     * The release in one piece, for a page that was built before there were manifests.
     *
     * @param array<string, mixed> $row
     * @param array{url: string, sha256: string, bytes: mixed} $named
     * @return array{url: string, sha256: string, bytes: int}
     */
    private function whole(array $row, array $named, string $name): array
    {
        $sheet = fn (string $sha256): array => $this->read(Sheet::path($sha256));
        $bytes = json_encode(
            Release::inOne($this->read($named['url']), $sheet, self::text($row['display_id']), $name),
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION,
        );
        [$file, $sha256] = $this->publisher->content('releases', $bytes, 'json');
        $this->connection->update('handed_release', ['whole_sha256' => $sha256], ['id' => $row['release_id']]);

        return ['url' => "/$file", 'sha256' => $sha256, 'bytes' => strlen($bytes)];
    }

    /**
     * @param array<string, mixed> $row
     * @return ?array<string, mixed> who each output is, until when
     */
    private static function alignment(array $row): ?array
    {
        $document = is_string($row['document']) ? json_decode($row['document'], true) : null;
        if (!is_array($document) || !is_string($row['alignment_until'])) {
            return null;
        }
        $display = Display::fromArray($document);

        return [
            'until' => strtr($row['alignment_until'], ' ', 'T') . 'Z',
            'canvas' => $display->raster()->toArray(),
            'outputs' => array_map(static fn (Feed $feed): array => $feed->toArray($display->bits), Feed::of($display)),
        ];
    }

    /**
     * @param array{url: string, sha256: string, bytes: mixed} $named
     * @return array<mixed>
     */
    private function manifest(array $named): array
    {
        if (!isset($this->planes[$named['sha256']])) {
            $this->planes = array_slice($this->planes, -63, null, true) + [$named['sha256'] => array_intersect_key($this->read($named['url']), ['planes' => 1])];
        }

        return (array) $this->planes[$named['sha256']];
    }

    /** @return array<mixed> */
    private function read(string $url): array
    {
        return (array) Json::decode($this->published->read(ltrim($url, '/')));
    }

    /** @param array<string, mixed> $pointer */
    private function put(string $secret, array $pointer): void
    {
        $file = "pointers/$secret.json";
        $bytes = json_encode(['format' => self::FORMAT, 'build' => $this->toolchain->pageBuild()] + $pointer, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE);
        // One that says the same already is left alone, so that nobody fetches it again.
        if (!$this->published->fileExists($file) || $this->published->read($file) !== $bytes) {
            $this->publisher->replace($file, $bytes);
        }
    }

    private static function text(mixed $value): string
    {
        return is_string($value) ? $value : '';
    }

    private static function number(mixed $value): float
    {
        return is_numeric($value) ? (float) $value : 0.0;
    }
}
