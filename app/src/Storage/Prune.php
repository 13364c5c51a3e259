<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use League\Flysystem\FilesystemOperator;
use League\Flysystem\StorageAttributes;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Target;
use UpperPane\App\Jobs\Chore;
use UpperPane\Core\Document\Json;
use UpperPane\Core\Layout\Template\Filled;

/**
 * Takes away what nobody can ask for any more (docs/operations.md has the rules). Nothing that was published within two days is touched.
 */
final class Prune implements Chore
{
    /** Releases that can be put back: so many of each display, and all of so many days. */
    public const RELEASES = 20;
    public const RELEASE_DAYS = 100;
    /** Every revision of so many days stays, then the last of each day for so many, then the last of each week. */
    public const ALL_REVISIONS_DAYS = 30;
    public const DAILY_REVISIONS_DAYS = 90;
    /** Whoever is about to name a file has so long to do it. */
    public const GRACE_S = 2 * 86_400;
    private const SIGNED_IN_DAYS = 30;
    private const HALF_MADE_S = 86_400;
    private const HANDING_DAYS = 100;
    /** So long is told what was seen. */
    public const SEEN_DAYS = 30;
    /** So long is told who did what. */
    public const RECORD_DAYS = 730;

    public function __construct(
        private readonly Connection $connection,
        private readonly ClockInterface $clock,
        #[Target('published')]
        private readonly FilesystemOperator $published,
        #[Target('incoming')]
        private readonly FilesystemOperator $incoming,
    ) {
    }

    public static function name(): string
    {
        return 'pruning';
    }

    public static function everyS(): int
    {
        return 86_400;
    }

    public function run(): void
    {
        $now = $this->clock->now()->getTimestamp();
        $before = static fn (int $seconds): string => gmdate('Y-m-d H:i:s', $now - $seconds);
        $this->connection->executeStatement('DELETE FROM binned WHERE deleted_at < ?', [$before(Bin::DAYS * 86_400)]);
        $this->releases($before(self::RELEASE_DAYS * 86_400));
        foreach (['design_revision' => 'design_id', 'survey_revision' => 'display_id'] as $table => $of) {
            $this->revisions($table, $of, $before(self::ALL_REVISIONS_DAYS * 86_400), $before(self::DAILY_REVISIONS_DAYS * 86_400));
        }
        $this->unnamed('shown_words', 'id', "SELECT w.id FROM shown_words w LEFT JOIN reference r ON r.kind = 'words' AND r.thing_id = w.id WHERE r.revision IS NULL");
        $this->connection->executeStatement('DELETE FROM handing WHERE begun_at < ? AND state IN (?)', [$before(self::HANDING_DAYS * 86_400), ['done', 'failed']], [1 => ArrayParameterType::STRING]);
        $this->connection->executeStatement('DELETE FROM in_force WHERE until_ms < ?', [1000 * ($now - self::HANDING_DAYS * 86_400)]);
        $this->connection->executeStatement('DELETE FROM act WHERE did_at < ?', [$before(self::RECORD_DAYS * 86_400)]);
        $this->connection->executeStatement('DELETE FROM seen_thing WHERE day < ?', [substr($before(self::SEEN_DAYS * 86_400), 0, 10)]);
        $this->connection->executeStatement('DELETE g FROM glass_picture g JOIN player p ON p.id = g.player_id WHERE p.revoked_at IS NOT NULL OR g.taken_at < ?', [$before(self::SEEN_DAYS * 86_400)]);
        $this->connection->executeStatement('DELETE FROM pairing WHERE ends_at < ?', [$before(86_400)]);
        $this->connection->executeStatement('DELETE FROM signed_in WHERE seen_at < ?', [$before(self::SIGNED_IN_DAYS * 86_400)]);
        // Guests who are gone: what they did stays written down.
        $this->connection->executeStatement('DELETE g FROM role_grant g JOIN account a ON a.login = g.login WHERE a.ends_at < ?', [$before(0)]);
        $this->connection->executeStatement('DELETE FROM account WHERE ends_at < ?', [$before(0)]);
        $this->connection->executeStatement('DELETE FROM sessions WHERE sess_lifetime < ?', [$now]);
        $this->connection->executeStatement('DELETE FROM cache_items WHERE item_lifetime IS NOT NULL AND item_time + item_lifetime < ?', [$now]);
        $this->files($now);
    }

    /** Of older ones the row stays, and says why it cannot be put back. */
    private function releases(string $before): void
    {
        $this->connection->executeStatement(
            'UPDATE handed_release r JOIN (
                SELECT id FROM (SELECT id, handed_over_at, ROW_NUMBER() OVER (PARTITION BY display_id ORDER BY number DESC) AS place FROM handed_release WHERE pruned = 0) ranked
                WHERE place > ? AND handed_over_at < ?
             ) old ON old.id = r.id LEFT JOIN surveyed_display s ON s.current_id = r.id SET r.pruned = 1, r.made_of = NULL, r.document = NULL, r.ruling = NULL WHERE s.id IS NULL',
            [self::RELEASES, $before],
        );
        $this->unnamed('release_part', 'made_of', 'SELECT p.made_of FROM release_part p LEFT JOIN handed_release r ON r.made_of = p.made_of WHERE r.id IS NULL');
    }

    /** Rows that nothing names any more, nor anything in the bin. */
    private function unnamed(string $table, string $column, string $asked): void
    {
        $unnamed = array_fill_keys(array_filter($this->connection->fetchFirstColumn($asked), is_string(...)), true);
        foreach ($unnamed === [] ? [] : $this->connection->fetchFirstColumn('SELECT kept FROM binned') as $text) {
            preg_match_all('/"(w?[0-9a-f]{32})"/', is_string($text) ? $text : '', $found);
            $unnamed = array_diff_key($unnamed, array_flip($found[1]));
        }
        foreach (array_chunk(array_map(strval(...), array_keys($unnamed)), 1000) as $chunk) {
            $this->connection->executeStatement("DELETE FROM $table WHERE $column IN (?)", [$chunk], [ArrayParameterType::STRING]);
        }
    }

    /** Thinned with age; what was handed over and can be put back, what has a note, and the newest of each stay. */
    private function revisions(string $table, string $of, string $recent, string $daily): void
    {
        $named = $this->named($table);
        $rows = $this->connection->iterateAssociative(
            "SELECT id, $of AS thing, number, IF(saved_at >= ?, DATE(saved_at), YEARWEEK(saved_at, 3)) AS slot FROM $table WHERE saved_at < ? AND note IS NULL ORDER BY $of, number DESC",
            [$daily, $recent],
        );
        [$seen, $gone] = [[], []];
        $newest = $this->connection->fetchAllKeyValue("SELECT $of, MAX(number) FROM $table GROUP BY $of");
        foreach ($rows as ['id' => $id, 'thing' => $thing, 'number' => $number, 'slot' => $slot]) {
            assert(is_string($thing) && (is_string($slot) || is_int($slot)));
            $isFirst = !isset($seen["$thing $slot"]);
            $seen["$thing $slot"] = true;
            if (!$isFirst && is_int($number) && !isset($named["$thing $number"]) && ($newest[$thing] ?? null) !== $number) {
                $gone[] = $id;
            }
        }
        foreach (array_chunk($gone, 1000) as $chunk) {
            $this->connection->executeStatement("DELETE FROM $table WHERE id IN (?)", [$chunk], [ArrayParameterType::INTEGER]);
        }
        if ($table === 'design_revision' && $gone !== []) {
            $this->connection->executeStatement('DELETE r FROM reference r LEFT JOIN design_revision v ON v.design_id = r.design_id AND v.number = r.revision WHERE v.id IS NULL');
        }
    }

    /** @return array<string, true> revisions that releases need which can be put back */
    private function named(string $table): array
    {
        $named = [];
        $rows = $this->connection->iterateNumeric($table === 'survey_revision'
            ? 'SELECT DISTINCT display_id, survey_revision FROM handed_release WHERE pruned = 0 AND survey_revision IS NOT NULL'
            : 'SELECT design_id, revision FROM release_part');
        foreach ($rows as [$thing, $number]) {
            $named[(is_string($thing) ? $thing : '') . ' ' . (is_int($number) ? $number : '')] = true;
        }
        foreach ($table === 'design_revision' ? $this->filled() : [] as $document) {
            $named[implode(' ', Filled::pinned($document) ?? [])] = true;
        }

        return $named;
    }

    /** @return iterable<array<mixed>> what was filled into a revision of a template, also where it lies in the bin */
    private function filled(): iterable
    {
        $read = static fn (mixed $text): array => is_string($text) && is_array($value = Json::decode($text)) ? $value : [];
        foreach ($this->connection->iterateColumn("SELECT document FROM design_revision WHERE JSON_VALUE(document, '$.format') = ?", [Filled::FORMAT]) as $document) {
            yield $read($document);
        }
        foreach ($this->connection->iterateColumn("SELECT kept FROM binned WHERE kind = 'filled'") as $kept) {
            $rows = $read($kept)['rows'] ?? null;
            foreach (is_array($rows) && is_array($rows['design_revision'] ?? null) ? $rows['design_revision'] : [] as $row) {
                yield is_array($row) ? $read($row['document'] ?? null) : [];
            }
        }
    }

    private function files(int $now): void
    {
        $named = $this->namedFiles();
        foreach (['files', 'sheets', 'releases'] as $folder) {
            foreach ($this->published->listContents($folder, true) as $file) {
                $isHalf = str_ends_with($file->path(), '.part');
                if ($file->isFile() && self::age($file, $now) > ($isHalf ? self::HALF_MADE_S : self::GRACE_S) && ($isHalf || !isset($named[$file->path()]))) {
                    $this->published->delete($file->path());
                }
            }
        }
        $bound = array_flip(array_filter($this->connection->fetchFirstColumn(
            'SELECT secret FROM player WHERE revoked_at IS NULL OR revoked_at > ?',
            [gmdate('Y-m-d H:i:s', $now - self::RELEASE_DAYS * 86_400)],
        ), is_string(...)));
        foreach ($this->published->listContents('pointers') as $file) {
            if ($file->isFile() && self::age($file, $now) > self::GRACE_S && !isset($bound[basename($file->path(), '.json')])) {
                $this->published->delete($file->path());
            }
        }
        $waiting = array_flip(array_filter($this->connection->fetchFirstColumn("SELECT id FROM media_asset WHERE state <> 'ready'"), is_string(...)));
        foreach ($this->incoming->listContents('') as $file) {
            if ($file->isFile() && self::age($file, $now) > self::GRACE_S && !isset($waiting[$file->path()])) {
                $this->incoming->delete($file->path());
            }
        }
    }

    /** @return array<string, true> paths of all that is named by media, faces, the bin, and releases that can be put back */
    private function namedFiles(): array
    {
        $named = [];
        $add = static function (mixed $path) use (&$named): void {
            if (is_string($path) && $path !== '') {
                $named[ltrim($path, '/')] = true;
            }
        };
        foreach (['SELECT file FROM media_asset', 'SELECT thumbnail FROM media_asset', 'SELECT file FROM brought_face'] as $sql) {
            array_map($add, $this->connection->fetchFirstColumn($sql));
        }
        $texts = $this->connection->fetchFirstColumn('SELECT kept FROM binned');
        array_push($texts, ...$this->connection->fetchFirstColumn('SELECT DISTINCT plane FROM in_force_on'));
        if ($this->published->fileExists('faces.json')) {
            $texts[] = $this->published->read('faces.json');
        }
        foreach ($this->connection->fetchAllAssociative('SELECT DISTINCT file, whole_sha256 FROM handed_release WHERE pruned = 0') as ['file' => $file, 'whole_sha256' => $whole]) {
            $add($file);
            $add(is_string($whole) ? sprintf('releases/%s/%s.json', substr($whole, 0, 2), $whole) : null);
            if (is_string($file) && $this->published->fileExists($file)) {
                $texts[] = $this->published->read($file);
            }
        }
        // Whatever a manifest, the bin or the list of faces names is a path in its text.
        foreach ($texts as $text) {
            preg_match_all('~(?:files|sheets|releases)\\\\?/[0-9a-f]{2}\\\\?/[0-9a-f]{64}\.[a-z0-9]+~', is_string($text) ? $text : '', $found);
            array_map(static fn (string $path) => $add(strtr($path, ['\\' => ''])), $found[0]);
        }

        return $named;
    }

    private static function age(StorageAttributes $file, int $now): int
    {
        return $now - ($file->lastModified() ?? $now);
    }
}
