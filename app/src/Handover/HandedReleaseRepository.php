<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\Persistence\ManagerRegistry;
use UpperPane\App\Account\Reach;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Showing;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Holding;

/** @extends ServiceEntityRepository<HandedRelease> */
final class HandedReleaseRepository extends ServiceEntityRepository implements Holding, Showing
{
    public function __construct(ManagerRegistry $registry, private readonly Reach $reach)
    {
        parent::__construct($registry, HandedRelease::class);
    }

    /** So many of a display, and of a handover, are told. */
    private const MOST = 100;
    /** So many displays are named in a sentence. */
    private const TOLD = 5;

    public function numbered(string $display, int $number): HandedRelease
    {
        return $this->findOneBy(['display' => $display, 'number' => $number]) ?? throw Problem::notFound('This release');
    }

    /** @return list<HandedRelease> of a display, the newest first */
    public function of(SurveyedDisplay $display): array
    {
        return $this->findBy(['display' => $display], ['number' => 'DESC'], self::MOST);
    }

    /** @return list<HandedRelease> that a handover brought, the first of them */
    public function broughtBy(string $handing): array
    {
        return $this->findBy(['handingId' => $handing], ['id' => 'ASC'], self::MOST);
    }

    /** @return array<HandedRelease> what was on the displays of a handover before it, wherever they still have what it brought, by display */
    public function before(string $handing): array
    {
        $before = [];
        foreach ($this->findBy(['handingId' => $handing]) as $brought) {
            $last = $brought->display->currentId === $brought->id ? $this->findOneBy(['display' => $brought->display, 'number' => $brought->number - 1]) : null;
            $before += $last === null ? [] : [$brought->display->id => $last];
        }

        return $before;
    }

    /** What stands on a display. */
    public function on(SurveyedDisplay $display): ?HandedRelease
    {
        return $display->currentId === null ? null : $this->find($display->currentId);
    }

    public function letsGo(About $thing): void
    {
        $shownOn = array_filter($this->getEntityManager()->getConnection()->fetchFirstColumn(
            'SELECT s.name FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id WHERE r.source_kind = ? AND r.source_id = ? ORDER BY s.position, s.id',
            [$thing->kind, $thing->id],
        ), is_string(...));
        if ($shownOn !== []) {
            $told = implode(', ', array_slice($shownOn, 0, self::TOLD)) . (count($shownOn) > self::TOLD ? sprintf(' and %d others', count($shownOn) - self::TOLD) : '');
            throw new Problem(409, $thing->kind === 'media' ? 'media.shown' : 'design.shown', sprintf('"%s" is shown on %s. Hand something else over there first.', $thing->name, $told));
        }
    }

    public function goesWith(string $kind): array
    {
        return $kind === 'display' ? ['handed_release' => 'display_id = ?'] : [];
    }

    public function forgets(string $kind): array
    {
        return [];
    }

    public function currentBySource(): array
    {
        $rows = $this->getEntityManager()->getConnection()->fetchAllAssociative(
            "SELECT s.id AS display, s.name AS display_name, r.number, r.source_revision, r.source_id,
                COALESCE(r.parts, JSON_ARRAY(JSON_OBJECT('id', r.source_id, 'revision', r.source_revision)) COLLATE utf8mb4_bin) AS parts, COALESCE(s.shape <> r.shape, 0) AS reshaped
             FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id WHERE {$this->reach->condition('display', 's.id')} ORDER BY s.position, s.id",
        );
        $changed = $this->changed(array_column($rows, 'parts'));
        $bySource = [];
        foreach ($rows as $row) {
            /** @var array{display: string, display_name: string, number: int, source_revision: ?int, source_id: string, parts: string, reshaped: int} $row */
            $bySource[$row['source_id']][] = [
                'display' => $row['display'],
                'display_name' => $row['display_name'],
                'number' => $row['number'],
                'revision' => $row['source_revision'],
                'older' => $row['reshaped'] === 1 || isset($changed[$row['parts']]),
            ];
        }

        return $bySource;
    }

    /**
     * Which of these say something else by now. Thousands of displays play the same few things, so each is looked at once.
     *
     * @param list<mixed> $parts of releases, as they are kept
     * @return array<string, true>
     */
    public function changed(array $parts): array
    {
        $connection = $this->getEntityManager()->getConnection();
        $now = $connection->fetchAllKeyValue('SELECT id, revision FROM design');
        $newer = [];
        foreach (array_unique(array_filter($parts, is_string(...))) as $text) {
            foreach ((array) json_decode($text, true) as $part) {
                if (is_array($part) && is_string($part['id'] ?? null) && is_int($part['revision'] ?? null) && ($now[$part['id']] ?? 0) > $part['revision']) {
                    $newer[$text][] = [$part['id'], $part['revision']];
                }
            }
        }
        $same = [];
        foreach (array_unique(array_merge(...array_values($newer)), SORT_REGULAR) as [$id, $revision]) {
            $same["$id $revision"] = $connection->fetchOne(
                'SELECT JSON_EQUALS(v.document, d.document) FROM design_revision v JOIN design d ON d.id = v.design_id WHERE v.design_id = ? AND v.number = ?',
                [$id, $revision],
            ) === 1;
        }

        return array_fill_keys(array_keys(array_filter(
            $newer,
            static fn (array $those): bool => array_filter($those, static fn (array $one): bool => !$same["$one[0] $one[1]"]) !== [],
        )), true);
    }

    /**
     * Releases as plain rows, without the documents that some of them keep.
     *
     * @param list<mixed> $ids
     * @return list<array<string, mixed>>
     */
    public function rows(array $ids): array
    {
        return $this->getEntityManager()->getConnection()->fetchAllAssociative(
            'SELECT r.id, r.number, r.sha256, r.file, r.bytes, r.source_kind, r.source_id, r.source_revision, r.name, r.handed_over_at, r.handed_over_by, r.planned_until, r.planned_then,
                r.plan_trouble, r.puts_back, r.pruned,
                COALESCE(r.parts, JSON_ARRAY(JSON_OBJECT(\'id\', r.source_id, \'revision\', r.source_revision)) COLLATE utf8mb4_bin) AS parts FROM handed_release r WHERE r.id IN (?)',
            [$ids],
            [ArrayParameterType::INTEGER],
        );
    }
}
