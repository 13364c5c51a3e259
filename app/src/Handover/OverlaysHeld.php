<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\Connection;
use UpperPane\App\Account\Reach;

/** On how many displays overlays hold, as places say. */
final readonly class OverlaysHeld
{
    public function __construct(private Connection $connection, private Reach $reach)
    {
    }

    /** @return list<string> ids of the displays on which an overlay holds, in the order of the estate */
    public function on(string $overlay): array
    {
        return array_values(array_filter($this->connection->fetchFirstColumn(
            "SELECT s.id FROM surveyed_display s WHERE FIND_IN_SET(?, JSON_VALUE(s.settled, '$.overlays')) > 0 AND {$this->reach->condition('display', 's.id')} ORDER BY s.position, s.id",
            [$overlay],
        ), is_string(...)));
    }

    /** @return list<string> ids of all displays, in the order of the estate */
    public function anywhere(): array
    {
        return array_values(array_filter($this->connection->fetchFirstColumn(
            "SELECT s.id FROM surveyed_display s WHERE {$this->reach->condition('display', 's.id')} ORDER BY s.position, s.id",
        ), is_string(...)));
    }

    /** @return array<array<string, int>> displays on which an overlay holds, by its id and their time zone */
    public function all(): array
    {
        $rows = $this->connection->fetchAllNumeric(
            "SELECT JSON_VALUE(s.settled, '$.overlays') AS held, JSON_VALUE(s.settled, '$.timezone') AS zone, COUNT(*) FROM surveyed_display s
             WHERE JSON_VALUE(s.settled, '$.overlays') <> '' AND {$this->reach->condition('display', 's.id')} GROUP BY held, zone",
        );
        $holds = [];
        foreach ($rows as [$held, $zone, $count]) {
            foreach (explode(',', is_string($held) ? $held : '') as $id) {
                $zone = is_string($zone) ? $zone : 'UTC';
                $holds[$id][$zone] = ($holds[$id][$zone] ?? 0) + (is_int($count) ? $count : 0);
            }
        }

        return $holds;
    }
}
