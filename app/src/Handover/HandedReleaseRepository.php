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

    /** @return array<string, list<array{display: string, display_name: string, number: int, revision: ?int}>> what stands on which displays, by the id of its source */
    public function currentBySource(): array
    {
        $rows = $this->getEntityManager()->createQuery(
            'SELECT d.id AS display, d.document AS document, r.number AS number, r.sourceRevision AS revision, r.sourceId AS source
             FROM ' . SurveyedDisplay::class . ' d JOIN d.current r ORDER BY d.position, d.id',
        )->getArrayResult();
        $bySource = [];
        foreach ($rows as $row) {
            /** @var array{display: string, document: array<string, mixed>, number: int, revision: ?int, source: string} $row */
            $bySource[$row['source']][] = [
                'display' => $row['display'],
                'display_name' => is_string($row['document']['name'] ?? null) ? $row['document']['name'] : $row['display'],
                'number' => $row['number'],
                'revision' => $row['revision'],
            ];
        }

        return $bySource;
    }

    public function nextNumber(SurveyedDisplay $display): int
    {
        return 1 + (int) $this->createQueryBuilder('r')->select('COALESCE(MAX(r.number), 0)')
            ->where('r.display = :display')->setParameter('display', $display)->getQuery()->getSingleScalarResult();
    }
}
