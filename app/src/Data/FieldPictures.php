<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use League\Flysystem\FilesystemOperator;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Target;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Ulid;
use Symfony\Contracts\Service\ResetInterface;
use UpperPane\App\Media\Awaiting;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Media\ProbeMedia;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Media\Media;

/**
 * Pictures that rows of data name by their addresses. Whoever tells a row asks for them here; what is not there yet is noted, fetched by who
 * fetches sources, looked into as any upload is, and told then. What is there stays while what comes anew is looked into, or cannot be.
 */
final class FieldPictures implements Awaiting, ResetInterface
{
    /** Of one source. */
    private const MOST = 2_000;
    private const LONGEST = 2_000;
    /** So many bytes are kept of one source, all its pictures together. */
    private const LARGEST = 500_000_000;
    /** What is there is asked for again after so long: there may be another one at the same address. */
    private const AGAIN_MS = 86_400_000;
    /** What failed is asked for again so soon, then more and more seldom. Common practice, no source. */
    private const RETRY_MS = 30_000;
    private const SELDOM_MS = 6 * 3_600_000;
    /** So long before it is noted again that one is still wanted. */
    private const WANTED_MS = 12 * 3_600_000;
    private const LEASE_MS = 120_000;
    private const TOGETHER_MS = 15_000;
    /** Failures that are told. */
    private const MOST_FAILED = 5;

    /** @var array<string, array<string, array{media: ?Media, wanted_ms: int}>> by source and hash of the address */
    private array $known = [];

    /** @var array<string, int> when what tells them was noted to be made anew, by source, Unix ms */
    private array $toldMs = [];

    /** @var array<string, ?string> addresses of sources, which theirs may be relative to */
    private array $bases = [];

    public function __construct(
        private readonly Connection $connection,
        private readonly EntityManagerInterface $entities,
        private readonly SourceStates $states,
        private readonly MessageBusInterface $jobs,
        private readonly ClockInterface $clock,
        #[Target('incoming')]
        private readonly FilesystemOperator $incoming,
    ) {
    }

    public function reset(): void
    {
        [$this->known, $this->bases] = [[], []];
    }

    /**
     * The picture that a value means.
     *
     * @param \Closure(): ?string $base address of the source, where it has one
     * @return ?Media null where there is none, or not yet: then it is wanted from now on
     */
    public function of(string $source, \Closure $base, string $value): ?Media
    {
        $this->bases[$source] ??= $base() ?? '';
        $address = Fetching::resolved((string) $this->bases[$source], trim($value));
        if ($address === null || strlen($address) > self::LONGEST || !mb_check_encoding($address, 'UTF-8')) {
            return null;
        }
        $this->known[$source] ??= $this->read($source);
        $hash = hash('sha256', $address);
        $nowMs = $this->nowMs();
        $found = $this->known[$source][$hash] ?? null;
        if ($found === null && count($this->known[$source]) < self::MOST) {
            $this->connection->executeStatement(
                'INSERT IGNORE INTO field_picture (source_id, hash, address, wanted_ms, due_ms) VALUES (?, ?, ?, ?, ?)',
                [$source, $hash, $address, $nowMs, $nowMs],
            );
        } elseif ($found !== null && $nowMs - $found['wanted_ms'] > self::WANTED_MS) {
            $this->connection->executeStatement('UPDATE field_picture SET wanted_ms = ? WHERE source_id = ? AND hash = ?', [$nowMs, $source, $hash]);
        }
        if (($found['wanted_ms'] ?? 0) < $nowMs - self::WANTED_MS) {
            $this->known[$source][$hash] = ['media' => $found['media'] ?? null, 'wanted_ms' => $nowMs];
        }

        return $found['media'] ?? null;
    }

    /**
     * Takes one that is due, so that nobody else fetches it at the same time.
     *
     * @return ?array{source_id: string, hash: string, address: string, etag: ?string, modified: ?string}
     */
    public function take(): ?array
    {
        $nowMs = $this->nowMs();
        /** @var list<array{source_id: string, hash: string, address: string, etag: ?string, modified: ?string}> $due */
        $due = $this->connection->fetchAllAssociative(
            'SELECT source_id, hash, address, etag, modified FROM field_picture WHERE due_ms <= ? AND claimed_ms < ? ORDER BY due_ms LIMIT 8',
            [$nowMs, $nowMs],
        );
        foreach ($due as $one) {
            $taken = $this->connection->executeStatement(
                'UPDATE field_picture SET claimed_ms = ? WHERE source_id = ? AND hash = ? AND due_ms <= ? AND claimed_ms < ?',
                [$nowMs + self::LEASE_MS, $one['source_id'], $one['hash'], $nowMs, $nowMs],
            );
            if ($taken === 1) {
                return $one;
            }
        }

        return null;
    }

    /** What came of one: bytes that are looked into, nothing new, or a reason. */
    public function came(string $source, string $hash, Fetched $fetched): void
    {
        /** @var array{address: string, tries: int|string, sha256: ?string, coming_id: ?string}|false $row */
        $row = $this->connection->fetchAssociative('SELECT address, tries, sha256, coming_id FROM field_picture WHERE source_id = ? AND hash = ?', [$source, $hash]);
        if ($row === false) {
            return;
        }
        if ($fetched->why !== null) {
            $this->failed($source, $hash, (int) $row['tries'], $fetched->why);

            return;
        }
        $sha256 = $fetched->bytes === null ? $row['sha256'] : hash('sha256', $fetched->bytes);
        $coming = $row['coming_id'];
        if ($fetched->bytes !== null && $sha256 !== $row['sha256']) {
            $kept = $this->connection->fetchOne('SELECT SUM(bytes) FROM media_asset WHERE of_source = ?', [$source]);
            if ((is_numeric($kept) ? (int) $kept : 0) + strlen($fetched->bytes) > self::LARGEST) {
                $this->failed($source, $hash, (int) $row['tries'], sprintf('The pictures of this source have more than %d MB together; no more are kept.', intdiv(self::LARGEST, 1_000_000)));

                return;
            }
            $asset = new MediaAsset(strtolower((string) new Ulid()), self::named($row['address']), strlen($fetched->bytes), $this->clock->now());
            $asset->ofSource = $source;
            $this->incoming->write($asset->id, $fetched->bytes);
            $this->entities->persist($asset);
            $this->entities->flush();
            $this->jobs->dispatch(new ProbeMedia($asset->id));
            $coming = $asset->id;
        }
        $short = static fn (?string $text, int $most): ?string => $text === null || strlen($text) > $most || !mb_check_encoding($text, 'UTF-8') ? null : $text;
        $this->connection->executeStatement(
            'UPDATE field_picture SET due_ms = ?, claimed_ms = 0, tries = 0, sha256 = ?, coming_id = ?, etag = ?, modified = ? WHERE source_id = ? AND hash = ?',
            [$this->nowMs() + self::AGAIN_MS, $sha256, $coming, $short($fetched->etag, 500), $short($fetched->modified, 100), $source, $hash],
        );
    }

    public function looked(MediaAsset $asset): void
    {
        if ($asset->ofSource === null) {
            return;
        }
        if ($asset->state === MediaAsset::READY && $asset->lengthMs === null) {
            $this->connection->executeStatement('UPDATE field_picture SET asset_id = coming_id, coming_id = NULL, why = NULL WHERE coming_id = ?', [$asset->id]);
        } else {
            $why = $asset->refusal ?? sprintf('"%s" is a film; a row means a picture.', $asset->name);
            $this->connection->executeStatement('UPDATE field_picture SET coming_id = NULL, why = ? WHERE coming_id = ?', [mb_strimwidth($why, 0, 500, '...'), $asset->id]);
        }
        $this->reset();
        // Many come together: what tells them is made anew once they are all there, and now and then until then.
        $nowMs = $this->nowMs();
        if ($nowMs - ($this->toldMs[$asset->ofSource] ?? 0) >= self::TOGETHER_MS || !$this->isMoreComing($asset->ofSource)) {
            $this->toldMs[$asset->ofSource] = $nowMs;
            $this->states->tellsAnew($asset->ofSource);
        }
    }

    private function isMoreComing(string $source): bool
    {
        return $this->connection->fetchOne('SELECT 1 FROM field_picture WHERE source_id = ? AND (coming_id IS NOT NULL OR (asset_id IS NULL AND why IS NULL)) LIMIT 1', [$source]) !== false;
    }

    /**
     * How those of a source stand.
     *
     * @return array{there: int, coming: int, failed: int, failures: list<array{address: string, why: string}>}
     */
    public function told(string $source): array
    {
        $counts = $this->connection->fetchAssociative(
            'SELECT SUM(asset_id IS NOT NULL) AS there, SUM(asset_id IS NULL AND why IS NULL) AS coming, SUM(asset_id IS NULL AND why IS NOT NULL) AS failed FROM field_picture WHERE source_id = ?',
            [$source],
        );
        $count = static fn (string $name): int => is_array($counts) && is_numeric($counts[$name]) ? (int) $counts[$name] : 0;
        /** @var list<array{address: string, why: string}> $failures */
        $failures = $this->connection->fetchAllAssociative(
            sprintf('SELECT address, why FROM field_picture WHERE source_id = ? AND why IS NOT NULL ORDER BY hash LIMIT %d', self::MOST_FAILED),
            [$source],
        );

        return ['there' => $count('there'), 'coming' => $count('coming'), 'failed' => $count('failed'), 'failures' => $failures];
    }

    /** The same for as long as all of them are the same. */
    public function key(): string
    {
        $key = $this->connection->fetchOne('SELECT CONCAT(COUNT(asset_id), " ", COALESCE(MAX(asset_id), "")) FROM field_picture');

        return is_string($key) ? $key : '';
    }

    /** Forgets those that nobody has wanted for long, and what was fetched of them and of earlier ones. */
    public function prune(int $beforeMs): void
    {
        $this->connection->executeStatement(
            'DELETE p FROM field_picture p LEFT JOIN design d ON d.id = p.source_id WHERE p.wanted_ms < ? OR (d.id IS NULL AND p.source_id NOT IN (SELECT thing_id FROM binned WHERE kind = ?))',
            [$beforeMs, 'source'],
        );
        $this->connection->executeStatement(
            'DELETE a FROM media_asset a LEFT JOIN field_picture p ON p.asset_id = a.id OR p.coming_id = a.id WHERE a.of_source IS NOT NULL AND p.hash IS NULL AND a.brought_in_at < ?',
            [gmdate('Y-m-d H:i:s', intdiv($beforeMs, 1000))],
        );
    }

    private function failed(string $source, string $hash, int $tries, string $why): void
    {
        $again = min(self::SELDOM_MS, self::RETRY_MS * 2 ** min(20, $tries));
        $this->connection->executeStatement(
            'UPDATE field_picture SET due_ms = ?, claimed_ms = 0, tries = tries + 1, why = ?, etag = NULL, modified = NULL WHERE source_id = ? AND hash = ?',
            [$this->nowMs() + $again, mb_strimwidth($why, 0, 500, '...'), $source, $hash],
        );
        // Others may have waited for this one.
        if ($tries === 0 && !$this->isMoreComing($source)) {
            $this->states->tellsAnew($source);
        }
    }

    /** @return array<string, array{media: ?Media, wanted_ms: int}> by hash */
    private function read(string $source): array
    {
        $known = [];
        /** @var iterable<array{hash: string, wanted_ms: int|string, id: ?string, name: ?string, width: int|string|null, height: int|string|null}> $rows */
        $rows = $this->connection->iterateAssociative(
            "SELECT p.hash, p.wanted_ms, a.id, a.name, a.width, a.height FROM field_picture p LEFT JOIN media_asset a ON a.id = p.asset_id AND a.state = 'ready' WHERE p.source_id = ?",
            [$source],
        );
        foreach ($rows as $row) {
            $size = $row['id'] === null ? null : Size::px(max(1, (int) $row['width']), max(1, (int) $row['height']));
            $known[$row['hash']] = ['media' => $size === null ? null : Media::of((string) $row['name'], $size, null, $row['id']), 'wanted_ms' => (int) $row['wanted_ms']];
        }

        return $known;
    }

    /** The last part of an address, as a file is called. */
    private static function named(string $address): string
    {
        $path = (string) parse_url($address, PHP_URL_PATH);
        $name = mb_scrub(rawurldecode(basename($path)), 'UTF-8');

        return mb_strcut($name === '' ? (string) parse_url($address, PHP_URL_HOST) : $name, 0, 200);
    }

    private function nowMs(): int
    {
        return (int) $this->clock->now()->format('Uv');
    }
}
