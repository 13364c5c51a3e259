<?php

declare(strict_types=1);

namespace UpperPane\App\Estate;

use Doctrine\DBAL\Connection;
use UpperPane\App\Account\Reach;
use UpperPane\App\Data\SourceStates;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Data\SourceStatus;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;

/** Sources of data that displays tell by now, and what is wrong with them. */
final readonly class ToldSources
{
    public function __construct(private Connection $connection, private Reach $reach, private Designs $designs, private SourceStates $states)
    {
    }

    /**
     * @param int $nowMs Unix ms
     * @return list<Finding> the one that most displays tell first
     */
    public function findings(int $nowMs): array
    {
        $displays = $this->displays();
        $states = $this->states->all(array_map(strval(...), array_keys($displays)));
        $found = [];
        foreach ($this->designs->those(array_map(strval(...), array_keys($displays))) as $design) {
            $state = $states[$design->id] ?? null;
            try {
                $source = $design->kind === DesignKind::Source ? Source::fromNode(Node::root($design->document)) : null;
            } catch (Refused) {
                $source = null;
            }
            if ($source === null || $source->table() !== null) {
                continue;
            }
            $finding = SourceStatus::of($source, $state?->takenMs, $state?->failingSinceMs, $nowMs)->finding($source, $state?->takenMs, $state?->failingSinceMs, $state?->why, $nowMs);
            if ($finding !== null) {
                $count = $displays[$design->id];
                $said = sprintf('%s %s tell%s it.', $finding->message, $count === 1 ? 'One display' : "$count displays", $count === 1 ? 's' : '');
                $found[] = [$count, new Finding($finding->code, $finding->level, [], $said, ['source' => $design->id, 'displays' => $count])];
            }
        }
        usort($found, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return array_column($found, 1);
    }

    /** @return array<int> on how many displays each source is told, by its id */
    private function displays(): array
    {
        $counts = [];
        $rows = $this->connection->fetchAllNumeric(
            "SELECT told.source, SUM(told.displays) FROM (
                SELECT DISTINCT made.made_of, made.displays, d.id AS source
                FROM (
                    SELECT r.made_of, COUNT(*) AS displays FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id
                    WHERE {$this->reach->condition('display', 's.id')} GROUP BY r.made_of
                ) made
                JOIN release_part p ON p.made_of = made.made_of
                JOIN reference f ON f.design_id = p.design_id AND f.revision = p.revision AND f.kind = 'design'
                JOIN design d ON d.id = f.thing_id AND d.kind = 'source'
             ) told GROUP BY told.source",
        );
        foreach ($rows as [$source, $count]) {
            if (is_string($source) && is_numeric($count)) {
                $counts[$source] = (int) $count;
            }
        }

        return $counts;
    }
}
