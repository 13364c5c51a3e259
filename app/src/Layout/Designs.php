<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\DBAL\ParameterType;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Reached;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Handover\Documents;

/**
 * Layouts, playlists and schedules.
 *
 * @extends Reached<Design>
 */
final readonly class Designs extends Reached
{
    /** So many of its revisions are told. */
    private const MOST_REVISIONS = 200;

    protected static function entity(): string
    {
        return Design::class;
    }

    protected static function kind(): string
    {
        return 'design';
    }

    protected static function unknown(): string
    {
        return 'and there is none of that id';
    }

    public function of(DesignKind $kind, string $id, bool $lock = false): Design
    {
        $design = $lock ? $this->locked($id) : $this->find($id);

        return $design !== null && $design->kind === $kind ? $design : throw Problem::notFound("This $kind->value");
    }

    /** What may be named as one of a kind where it plays; null where there is none. */
    public function played(string $kind, string $id): ?Design
    {
        $design = $this->find($id);

        return in_array($design?->kind, DesignKind::playedAs($kind), true) ? $design : null;
    }

    /**
     * That whoever asks may know of all that a document names: a template that is not free for her is none.
     *
     * @param array<string, mixed> $document
     * @throws Refused
     */
    public function reaches(array $document): void
    {
        $named = Documents::named($document)['designs'];
        $there = array_map(static fn (Design $one): string => $one->id, $this->those($named));
        foreach (array_diff($named, $there) as $id) {
            $path = ($document['template'] ?? null) === $id ? '/template' : '/values';
            throw DocumentRefused::because(Reason::RefUnknown, sprintf('%s names "%s", %s.', $path, $id, self::unknown()), $path);
        }
    }

    /** @return list<Design> in the order of their names */
    public function all(DesignKind $kind): array
    {
        return $this->asked($this->within('x')->andWhere('x.kind = :kind')->setParameter('kind', $kind)->orderBy('x.name')->addOrderBy('x.id'));
    }

    /** The one that rules on a display or in a place. */
    public function ruling(DesignKind $kind, ?string $display, ?string $place): ?Design
    {
        $query = $this->within('x')->andWhere('x.kind = :kind')->setParameter('kind', $kind)->setMaxResults(1);
        $display === null
            ? $query->andWhere('x.placeId = :place')->setParameter('place', $place)
            : $query->andWhere('x.displayId = :display')->setParameter('display', $display);

        return $this->asked($query)[0] ?? null;
    }

    /**
     * @param list<string> $displays ids
     * @return array<Design> the schedules that rule on these alone, by display
     */
    public function schedulesOf(array $displays): array
    {
        $found = $displays === [] ? [] : $this->asked(
            $this->within('x')->andWhere('x.kind = :kind AND x.displayId IN (:displays)')->setParameter('kind', DesignKind::Schedule)->setParameter('displays', $displays),
        );

        return array_combine(array_map(static fn (Design $one): string => (string) $one->displayId, $found), $found);
    }

    /** @return list<Design> playlists that are open at a place */
    public function openSomewhere(): array
    {
        return $this->asked($this->within('x')->andWhere('x.kind = :kind AND x.placeId IS NOT NULL')->setParameter('kind', DesignKind::Playlist)->orderBy('x.name')->addOrderBy('x.id'));
    }

    /** A revision that was saved, or kept aside, by its own id. */
    public function kept(Design $design, int $id): DesignRevision
    {
        $kept = $this->entities->find(DesignRevision::class, $id);

        return $kept !== null && $kept->designId === $design->id ? $kept : throw Problem::notFound('This revision');
    }

    /** A revision by its number; null where there is none, or none any more. */
    public function numbered(string $design, int $number): ?DesignRevision
    {
        return $this->entities->getRepository(DesignRevision::class)->findOneBy(['designId' => $design, 'number' => $number]);
    }

    /**
     * The newest first; their documents stay where they are.
     *
     * @return list<array{id: int, number: ?int, saved_at: string, saved_by: ?string, note: ?string}>
     */
    public function revisions(Design $design): array
    {
        /** @var list<array{id: int, number: ?int, saved_at: string, saved_by: ?string, note: ?string}> */
        return $this->entities->getConnection()->fetchAllAssociative(
            "SELECT id, number, DATE_FORMAT(saved_at, '%Y-%m-%dT%H:%i:%sZ') AS saved_at, saved_by, note FROM design_revision WHERE design_id = ? ORDER BY id DESC LIMIT ?",
            [$design->id, self::MOST_REVISIONS],
            [ParameterType::STRING, ParameterType::INTEGER],
        );
    }

    /** The one that was saved before another; null where there is none any more. */
    public function before(DesignRevision $revision): ?DesignRevision
    {
        $id = $this->entities->getConnection()->fetchOne(
            'SELECT MAX(id) FROM design_revision WHERE design_id = ? AND id < ? AND number IS NOT NULL',
            [$revision->designId, $revision->id],
        );

        return is_int($id) ? $this->entities->find(DesignRevision::class, $id) : null;
    }

    /**
     * All designs of a kind by name, as Design::summary tells them; their documents stay where they are, since a list has hundreds.
     *
     * @return list<array{id: string, ...<string, mixed>}>
     */
    public function summaries(DesignKind $kind): array
    {
        $rows = $this->entities->getConnection()->fetchAllAssociative(
            "SELECT d.id, d.name, d.revision, d.display_id, d.place_id, DATE_FORMAT(d.saved_at, '%Y-%m-%dT%H:%i:%sZ') AS saved_at, d.saved_by,
                JSON_VALUE(COALESCE(t.document, d.document), '$.canvas.width') AS width, JSON_VALUE(COALESCE(t.document, d.document), '$.canvas.height') AS height,
                JSON_LENGTH(d.document, '$.slots') AS slots, t.id AS template, t.name AS template_name, t.revision AS template_newest,
                JSON_VALUE(d.document, '$.template_revision') AS template_revision
             FROM design d LEFT JOIN design t ON d.kind = ? AND t.id = JSON_VALUE(d.document, '$.template') COLLATE utf8mb4_nopad_bin
             WHERE d.kind = ? AND {$this->reach->condition('design', 'd.id')} ORDER BY d.name, d.id",
            [DesignKind::Filled->value, $kind->value],
        );

        return array_map(static fn (array $row): array => [
            'id' => is_string($row['id']) ? $row['id'] : '',
            'kind' => $kind->value,
            'name' => $row['name'],
            'revision' => $row['revision'],
            'display' => $row['display_id'],
            'place' => $row['place_id'],
            'canvas' => is_numeric($row['width']) && is_numeric($row['height']) ? ['width' => (int) $row['width'], 'height' => (int) $row['height']] : null,
            'saved_at' => $row['saved_at'],
            'saved_by' => $row['saved_by'],
        ] + match (true) {
            $kind === DesignKind::Layout => ['slots' => is_numeric($row['slots']) ? (int) $row['slots'] : 0],
            $kind === DesignKind::Filled => ['template' => $row['template'] === null ? null : [
                'id' => $row['template'],
                'name' => $row['template_name'],
                'newest' => $row['template_newest'],
                'revision' => is_numeric($row['template_revision']) ? (int) $row['template_revision'] : null,
            ]],
            default => [],
        }, $rows);
    }
}
