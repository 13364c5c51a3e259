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
    /** So many of a display, and of a handover, are told. */
    private const MOST = 100;
    /** So many displays are named in a sentence. */
    private const TOLD = 5;
    /** So many are asked for in one query. */
    private const AT_ONCE = 1_000;
    /** So many displays of a source are named in a list. */
    private const SOME = 3;

    /**
     * Of a release r on a display s, beside what MadeOf says: that the display was surveyed anew, that something else holds there, or that of one from
     * before the source alone is known.
     */
    public const OLDER = '(COALESCE(s.shape <> r.shape, 0) OR COALESCE(NOT JSON_CONTAINS(s.settled, r.settings), 0)'
        . ' OR (r.made_of IS NULL AND EXISTS (SELECT 1 FROM design d WHERE d.id = r.source_id AND d.revision > r.source_revision)))';

    public function __construct(ManagerRegistry $registry, private readonly Reach $reach, private readonly MadeOf $madeOf)
    {
        parent::__construct($registry, HandedRelease::class);
    }

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

    /** What that was made from; null where nothing stands, or it was not recorded. */
    public function contentsOn(SurveyedDisplay $display): ?Contents
    {
        $standing = $this->on($display);

        return $standing === null ? null : $this->contents($standing);
    }

    /**
     * Displays on which something stands above which more can be laid, and by what they are alike.
     *
     * @param list<string> $displays ids
     * @return list<array{id: string, alike: string, release: string, width: int, height: int, panels: int, timezone: string}> in the order of the estate, by thousands
     */
    public function carriers(array $displays): array
    {
        $found = [];
        foreach (array_chunk($displays, self::AT_ONCE) as $chunk) {
            $rows = $this->getEntityManager()->getConnection()->fetchAllAssociative(
                "SELECT s.id, s.alike, r.sha256 AS `release`, JSON_VALUE(s.summary, '$.raster.width') AS width, JSON_VALUE(s.summary, '$.raster.height') AS height,
                    JSON_VALUE(s.summary, '$.panels') AS panels, JSON_VALUE(s.summary, '$.timezone') AS timezone
                 FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id AND r.manifest = 1 WHERE s.id IN (?) ORDER BY s.position, s.id",
                [$chunk],
                [ArrayParameterType::STRING],
            );
            foreach ($rows as $row) {
                $text = static fn (string $name): string => is_string($row[$name]) ? $row[$name] : '';
                $figure = static fn (string $name): int => is_numeric($row[$name]) ? (int) $row[$name] : 0;
                $found[] = ['id' => $text('id'), 'alike' => $text('alike'), 'release' => $text('release'), 'timezone' => $text('timezone')]
                    + ['width' => $figure('width'), 'height' => $figure('height'), 'panels' => $figure('panels')];
            }
        }

        return $found;
    }

    /**
     * @param list<string> $displays ids
     * @return list<string> those of them on which something stands
     */
    public function standOn(array $displays): array
    {
        $found = [];
        foreach (array_chunk($displays, self::AT_ONCE) as $chunk) {
            $asked = 'SELECT s.id FROM surveyed_display s WHERE s.current_id IS NOT NULL AND s.id IN (?) ORDER BY s.position, s.id';
            array_push($found, ...array_filter($this->getEntityManager()->getConnection()->fetchFirstColumn($asked, [$chunk], [ArrayParameterType::STRING]), is_string(...)));
        }

        return $found;
    }

    /**
     * @param list<SurveyedDisplay> $displays
     * @return array<HandedRelease> what stands on each, by display; not where nothing does
     */
    public function onEach(array $displays): array
    {
        $releases = [];
        foreach (array_chunk(array_filter(array_map(static fn (SurveyedDisplay $display): ?int => $display->currentId, $displays)), self::AT_ONCE) as $ids) {
            foreach ($this->findBy(['id' => $ids]) as $release) {
                $releases[$release->display->id] = $release;
            }
        }

        return $releases;
    }

    /** @return list<string> ids of the displays on which something stands that has this design in it, in the order of the estate */
    public function carrying(string $design): array
    {
        return array_values(array_filter($this->getEntityManager()->getConnection()->fetchFirstColumn(
            "SELECT s.id FROM release_part p JOIN handed_release r ON r.made_of = p.made_of JOIN surveyed_display s ON s.current_id = r.id
             WHERE p.design_id = ? AND {$this->reach->condition('display', 's.id')} ORDER BY s.position, s.id",
            [$design],
        ), is_string(...)));
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

    public function standing(): array
    {
        $within = $this->reach->condition('display', 's.id');
        [$changed, $names] = [$this->madeOf->changed(), $this->firstNames($within)];
        $standing = [];
        $groups = $this->getEntityManager()->getConnection()->fetchAllAssociative(
            'SELECT r.source_kind, r.source_id, r.made_of, ' . self::OLDER . " AS older, COUNT(*) AS displays
             FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id WHERE $within GROUP BY 1, 2, 3, 4 ORDER BY MIN(s.position), 2, 3",
        );
        $made = array_values(array_unique(array_filter(array_column($groups, 'made_of'), is_string(...))));
        [$parts, $told] = [$this->madeOf->designs($made), $this->madeOf->sources($made)];
        foreach ($groups as $group) {
            /** @var array{source_kind: string, source_id: string, made_of: ?string, older: int, displays: int} $group */
            [$source, $madeOf] = [$group['source_id'], $group['made_of'] ?? ''];
            $newer = $changed[$madeOf] ?? [];
            foreach (array_keys([$source => true] + ($parts[$madeOf] ?? []) + ($told[$madeOf] ?? [])) as $id) {
                $isOlder = (string) $id === $source ? $group['older'] === 1 || $newer !== [] : isset($newer[$id]);
                $one = $standing[$id] ?? ['displays' => 0, 'older' => 0, 'some' => [], 'again' => null];
                $one['displays'] += $group['displays'];
                $one['some'] += $names["$source $madeOf"] ?? [];
                if ($isOlder) {
                    $one['older'] += $group['displays'];
                    $one['again'] ??= ['kind' => $group['source_kind'], 'id' => $source];
                }
                $standing[$id] = $one;
            }
        }
        foreach ($standing as $id => $one) {
            ksort($one['some']);
            $standing[$id]['some'] = array_slice(array_values($one['some']), 0, self::SOME);
        }

        return $standing;
    }

    public function handedOver(string $design): array
    {
        $handed = [];
        $rows = $this->getEntityManager()->getConnection()->fetchAllAssociative(
            "SELECT p.revision, COUNT(DISTINCT s.id) AS displays, DATE_FORMAT(MAX(r.handed_over_at), '%Y-%m-%dT%H:%i:%sZ') AS last, COALESCE(SUM(s.current_id = r.id), 0) AS now
             FROM release_part p JOIN handed_release r ON r.made_of = p.made_of JOIN surveyed_display s ON s.id = r.display_id
             WHERE p.design_id = ? AND {$this->reach->condition('display', 's.id')} GROUP BY p.revision",
            [$design],
        );
        foreach ($rows as $row) {
            /** @var array{revision: int, displays: int, last: string, now: int|string} $row */
            $handed[$row['revision']] = ['displays' => $row['displays'], 'last' => $row['last'], 'now' => (int) $row['now']];
        }

        return $handed;
    }

    /** @return array<string, array<int, string>> by source and what its releases are made of: names of the first displays, by their place in the estate */
    private function firstNames(string $within): array
    {
        $names = [];
        $rows = $this->getEntityManager()->getConnection()->fetchAllNumeric(
            "SELECT CONCAT(source_id, ' ', made_of), place, name FROM (
                SELECT r.source_id, COALESCE(r.made_of, '') AS made_of, s.name, ROW_NUMBER() OVER (ORDER BY s.position, s.id) AS place,
                    ROW_NUMBER() OVER (PARTITION BY r.source_id, r.made_of ORDER BY s.position, s.id) AS nth
                FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id WHERE $within) ranked WHERE nth <= ?",
            [self::SOME],
        );
        foreach ($rows as [$of, $place, $name]) {
            if (is_string($of) && is_int($place) && is_string($name)) {
                $names[$of][$place] = $name;
            }
        }

        return $names;
    }

    /**
     * Displays on which something stands that says something else by now, or was handed over before they were surveyed anew.
     *
     * @return array<true> by id
     */
    public function older(): array
    {
        $older = [];
        $changed = $this->madeOf->changed();
        $rows = $this->getEntityManager()->getConnection()->fetchAllNumeric(
            'SELECT s.id, r.made_of, ' . self::OLDER . " FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id WHERE {$this->reach->condition('display', 's.id')}",
        );
        foreach ($rows as [$id, $madeOf, $is]) {
            if (is_string($id) && ($is === 1 || isset($changed[is_string($madeOf) ? $madeOf : '']))) {
                $older[$id] = true;
            }
        }

        return $older;
    }

    /** What a release was made from; null where that was not recorded. */
    public function contents(HandedRelease $release): ?Contents
    {
        return $release->contents($release->madeOf === null ? [] : $this->madeOf->parts($release->madeOf));
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
                r.plan_trouble, r.puts_back, r.pruned FROM handed_release r WHERE r.id IN (?)',
            [$ids],
            [ArrayParameterType::INTEGER],
        );
    }
}
