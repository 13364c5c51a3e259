<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsEntityListener;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\Events;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Holding;
use UpperPane\Core\Document\Json;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Handover\Documents;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Layout\Template\Filling;

/**
 * Which revision of which design names which other designs and media, and says which words: as rows, written with each revision.
 *
 * Where something is used or said is asked of these; nobody searches documents for it.
 */
#[AsEntityListener(event: Events::postPersist, method: 'noted', entity: DesignRevision::class)]
final readonly class References implements Holding
{
    public const DESIGN = 'design';
    public const MEDIA = 'media';
    /** By its family. */
    public const FACE = 'face';
    /** Of the house style, as `colours/sea`. */
    public const NAME = 'name';
    /** What viewers read, by what names it in `shown_words`. */
    public const WORDS = 'words';
    /** A language in which what is filled in says nothing, while it says something in others. */
    public const LACKS = 'lacks';

    /** Longer ids and families are none of ours. */
    private const LONGEST = 80;
    /** So many rows are written by one statement. */
    private const AT_ONCE = 500;

    public function __construct(private Connection $connection)
    {
    }

    public function letsGo(About $thing): void
    {
        $kind = match ($thing->kind) {
            'media' => self::MEDIA,
            default => in_array($thing->kind, DesignKind::names(), true) ? self::DESIGN : null,
        };
        $users = $kind === null ? [] : $this->names($kind, $thing->id);
        if ($users !== []) {
            $named = implode(', ', array_map(static fn (string $user): string => "\"$user\"", $users));
            throw new Problem(409, "$kind.used", sprintf('"%s" is used in %s. Take it out there first.', $thing->name, $named));
        }
    }

    public function goesWith(string $kind): array
    {
        return in_array($kind, DesignKind::names(), true) ? ['reference' => 'design_id = ?'] : [];
    }

    public function forgets(string $kind): array
    {
        return $kind === 'display' ? ['design' => 'display_id'] : [];
    }

    /** Of one that came too late and was kept aside nothing is noted: nobody plays it. */
    public function noted(DesignRevision $revision): void
    {
        if ($revision->number === null) {
            return;
        }
        [$rows, $words] = [[], []];
        $template = $this->filledInto($revision->document);
        foreach ($template === [] ? [] : self::lacking($revision->document, $template[0]) as $language) {
            $rows[self::LACKS . " $language"] = [$revision->designId, $revision->number, self::LACKS, $language];
        }
        foreach ([$revision->document, ...$template] as $document) {
            foreach (self::words($document) as $id => $text) {
                $words[$id] = [$id, $text];
            }
            foreach (self::rows($revision->designId, $revision->number, $document) as $row) {
                $rows["{$row['kind']} {$row['thing_id']}"] = array_values($row);
            }
        }
        $this->insert('INSERT IGNORE INTO shown_words (id, words)', array_values($words));
        $this->insert('INSERT INTO reference (design_id, revision, kind, thing_id)', array_values($rows));
    }

    /** @param list<non-empty-list<int|string>> $rows */
    private function insert(string $into, array $rows): void
    {
        foreach (array_chunk($rows, self::AT_ONCE) as $chunk) {
            $places = '(' . implode(', ', array_fill(0, count($chunk[0]), '?')) . ')';
            $this->connection->executeStatement("$into VALUES " . implode(', ', array_fill(0, count($chunk), $places)), array_merge(...$chunk));
        }
    }

    /**
     * @param array<string, mixed> $filled
     * @param array<string, mixed> $template
     * @return list<string> languages in which it says nothing, while it says something in others
     */
    public static function lacking(array $filled, array $template): array
    {
        try {
            return Filling::of(Filled::fromArray($filled), Layout::fromArray($template))->lacking();
        } catch (Refused) {
            // What cannot be filled in is refused elsewhere.
            return [];
        }
    }

    /**
     * The revision of a template into which a document was filled: it shows what that names, also when the template goes on without it.
     *
     * @param array<string, mixed> $document
     * @return list<array<string, mixed>> none, or one
     */
    private function filledInto(array $document): array
    {
        $pinned = Filled::pinned($document);
        $then = $pinned === null ? null : $this->connection->fetchOne('SELECT document FROM design_revision WHERE design_id = ? AND number = ?', $pinned);

        $document = is_string($then) ? Json::decode($then) : null;
        /** @var list<array<string, mixed>> $documents */
        $documents = is_array($document) ? [$document] : [];

        return $documents;
    }

    /**
     * @param array<string, mixed> $document
     * @return array<string, string> what viewers read, by what names it
     */
    public static function words(array $document): array
    {
        $words = Documents::named($document)['words'];

        return array_combine(array_map(self::wordsId(...), $words), $words);
    }

    private static function wordsId(string $words): string
    {
        return 'w' . hash('xxh128', $words);
    }

    /**
     * @param array<string, mixed> $document
     * @return list<array{design_id: string, revision: int, kind: string, thing_id: string}> what it names, but for itself
     */
    public static function rows(string $design, int $revision, array $document): array
    {
        $rows = [];
        foreach (Documents::named($document) as $list => $ids) {
            $kind = ['designs' => self::DESIGN, 'media' => self::MEDIA, 'faces' => self::FACE, 'words' => self::WORDS, 'names' => self::NAME][$list];
            foreach ($kind === self::WORDS ? array_map(self::wordsId(...), $ids) : $ids as $id) {
                if (($kind !== self::DESIGN || $id !== $design) && mb_strlen((string) $id) <= self::LONGEST) {
                    $rows[] = ['design_id' => $design, 'revision' => $revision, 'kind' => $kind, 'thing_id' => (string) $id];
                }
            }
        }

        return $rows;
    }

    /** @return array<string, list<string>> by the id of a design: names of the others that name it as they are saved by now */
    public function uses(): array
    {
        $uses = [];
        $rows = $this->connection->fetchAllNumeric(
            'SELECT r.thing_id, d.name FROM reference r JOIN design d ON d.id = r.design_id AND d.revision = r.revision WHERE r.kind = ? ORDER BY d.name, d.id',
            [self::DESIGN],
        );
        foreach ($rows as [$thing, $name]) {
            if (is_string($thing) && is_string($name)) {
                $uses[$thing][] = $name;
            }
        }

        return $uses;
    }

    /**
     * @param self::DESIGN|self::MEDIA|self::NAME $kind
     * @return array<DesignKind> by id, in the order of their names: designs that name it as they are saved by now
     */
    public function users(string $kind, string ...$ids): array
    {
        $rows = $this->connection->fetchAllKeyValue(
            'SELECT d.id, d.kind FROM reference r JOIN design d ON d.id = r.design_id AND d.revision = r.revision WHERE r.kind = ? AND r.thing_id IN (?) ORDER BY d.name, d.id',
            [$kind, $ids],
            [1 => ArrayParameterType::STRING],
        );

        return array_map(static fn (mixed $one): DesignKind => DesignKind::from(is_string($one) ? $one : ''), $rows);
    }

    /**
     * @param self::DESIGN|self::MEDIA $kind
     * @return array<DesignKind> by id: designs that name it, and those that name these, however far
     */
    public function usersOfAll(string $kind, string $id): array
    {
        $all = $next = array_diff_key($this->users($kind, $id), [$id => true]);
        while ($next !== []) {
            $next = array_diff_key($this->users(self::DESIGN, ...array_map(strval(...), array_keys($next))), $all, [$id => true]);
            $all += $next;
        }

        return $all;
    }

    /**
     * @param array<int> $parts revisions by the ids of designs
     * @return array<string> names of the sources of data that are named in these, by id
     */
    public function sourcesIn(array $parts): array
    {
        $names = [];
        foreach (array_chunk(array_keys($parts), 500) as $ids) {
            $rows = $this->connection->fetchAllNumeric(
                "SELECT r.design_id, r.revision, d.id, d.name FROM reference r JOIN design d ON d.id = r.thing_id AND d.kind = 'source' WHERE r.kind = ? AND r.design_id IN (?) ORDER BY d.name",
                [self::DESIGN, array_map(strval(...), $ids)],
                [1 => ArrayParameterType::STRING],
            );
            foreach ($rows as [$design, $revision, $source, $name]) {
                if (is_string($design) && is_string($source) && is_string($name) && ($parts[$design] ?? null) === $revision) {
                    $names[$source] = $name;
                }
            }
        }

        return $names;
    }

    /**
     * @param self::DESIGN|self::MEDIA|self::FACE|self::NAME $kind
     * @return list<string> names of the designs that name it as they are saved by now
     */
    public function names(string $kind, string $id): array
    {
        return array_values(array_filter($this->connection->fetchFirstColumn(
            'SELECT d.name FROM reference r JOIN design d ON d.id = r.design_id AND d.revision = r.revision WHERE r.kind = ? AND r.thing_id = ? ORDER BY d.name, d.id',
            [$kind, $id],
        ), is_string(...)));
    }
}
