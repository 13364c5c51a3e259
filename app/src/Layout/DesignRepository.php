<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<Design> */
final class DesignRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Design::class);
    }

    /**
     * All designs of a kind by name, as Design::summary tells them; their documents stay where they are, since a list has hundreds.
     *
     * @return list<array{id: string, ...<string, mixed>}>
     */
    public function summaries(DesignKind $kind): array
    {
        $rows = $this->getEntityManager()->getConnection()->fetchAllAssociative(
            "SELECT id, name, revision, display_id, place_id, DATE_FORMAT(saved_at, '%Y-%m-%dT%H:%i:%sZ') AS saved_at, saved_by,
                JSON_VALUE(document, '$.canvas.width') AS width, JSON_VALUE(document, '$.canvas.height') AS height
             FROM design WHERE kind = ? ORDER BY name, id",
            [$kind->value],
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
        ], $rows);
    }
}
