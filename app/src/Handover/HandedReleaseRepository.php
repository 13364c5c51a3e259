<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use UpperPane\App\Display\SurveyedDisplay;

/** @extends ServiceEntityRepository<HandedRelease> */
final class HandedReleaseRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, HandedRelease::class);
    }

    /**
     * What stands on which displays, by the id of its source; `older` where the source, or anything in it, says something else by now.
     *
     * @return array<string, list<array{display: string, display_name: string, number: int, revision: ?int, older: bool}>>
     */
    public function currentBySource(): array
    {
        $rows = $this->getEntityManager()->getConnection()->fetchAllAssociative(
            "SELECT s.id AS display, COALESCE(JSON_VALUE(s.document, '$.name'), s.id) AS display_name, r.number, r.source_revision, r.source_id,
                r.id AS release_id, (COALESCE(s.shape <> r.shape, 0) OR COALESCE(d.revision > r.source_revision AND NOT JSON_EQUALS(d.document, r.document), 0)) AS older
             FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id LEFT JOIN design d ON d.id = r.source_id ORDER BY s.position, s.id",
        );
        $changed = $this->changed();
        $bySource = [];
        foreach ($rows as $row) {
            /** @var array{display: string, display_name: string, number: int, source_revision: ?int, source_id: string, release_id: int, older: ?int} $row */
            $bySource[$row['source_id']][] = [
                'display' => $row['display'],
                'display_name' => $row['display_name'],
                'number' => $row['number'],
                'revision' => $row['source_revision'],
                'older' => $row['older'] === 1 || isset($changed[$row['release_id']]),
            ];
        }

        return $bySource;
    }

    /** @return array<int, true> ids of current releases with a design in them that says something else by now */
    private function changed(): array
    {
        $ids = $this->getEntityManager()->getConnection()->fetchFirstColumn(
            "SELECT DISTINCT r.id FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id,
                JSON_TABLE(r.parts, '$[*]' COLUMNS (id VARCHAR(80) PATH '$.id', revision INT PATH '$.revision')) p
                JOIN design d ON d.id = CONVERT(p.id USING utf8mb4) COLLATE utf8mb4_unicode_ci AND d.revision > p.revision
                LEFT JOIN design_revision v ON v.design_id = d.id AND v.number = p.revision
             WHERE v.id IS NULL OR NOT JSON_EQUALS(v.document, d.document)",
        );

        return array_fill_keys(array_filter($ids, is_int(...)), true);
    }

    public function nextNumber(SurveyedDisplay $display): int
    {
        return 1 + (int) $this->createQueryBuilder('r')->select('COALESCE(MAX(r.number), 0)')
            ->where('r.display = :display')->setParameter('display', $display)->getQuery()->getSingleScalarResult();
    }
}
