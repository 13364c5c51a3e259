<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use UpperPane\App\Account\Reach;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\Places;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Layout\Design;
use UpperPane\App\Time\Schedules;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Time\Schedule\Ruling;

/** Displays that something is for, read as plain rows and put together where all is alike: thousands of them are a few dozen kinds. */
final readonly class Targets
{
    /** So many are named in a sentence. */
    private const NAMED = 3;

    public function __construct(private Connection $connection, private Displays $displays, private Places $places, private Reach $reach, private Schedules $schedules)
    {
    }

    /**
     * @param Node $body with `displays`, `places`, or both: ids
     * @return non-empty-list<string> ids of those named and of those in the places named, each once
     */
    public function named(Node $body): array
    {
        $nodes = $body->optional('displays')?->items(10_000) ?? [];
        $wanted = array_fill_keys(array_map(static fn (Node $node): string => $node->id(), $nodes), true);
        $there = array_flip($this->column('SELECT s.id FROM surveyed_display s WHERE s.id IN (?)', array_map(strval(...), array_keys($wanted))));
        foreach ($nodes as $node) {
            isset($there[$node->id()]) ?: throw $node->refused(Reason::RefUnknown, sprintf('is "%s", no display of the estate.', $node->id()));
        }
        $within = [];
        foreach ($body->optional('places')?->items(1000) ?? [] as $node) {
            array_push($within, ...array_map(static fn (Place $one): string => $one->id, $this->places->in($this->places->named($node))));
        }
        $wanted += array_fill_keys($this->column('SELECT s.id FROM surveyed_display s WHERE s.place_id IN (?)', $within), true);

        return $wanted === [] ? throw $body->refused(Reason::FieldMissing, 'names no display; choose at least one.') : array_map(strval(...), array_keys($wanted));
    }

    /**
     * @param list<string> $ids
     * @param array<string> $apart what tells displays apart beside all that is looked at here, by id
     * @return list<non-empty-list<string>> those that are alike: in all but their names, where they hang, what rules there, and what was handed over to them
     */
    public function alike(array $ids, array $apart = []): array
    {
        $places = [];
        foreach ($this->places->all() as $place) {
            $places[$place->id] = [$place->zone(), $place->outwards()];
        }
        $rules = $this->schedules->all();
        $alike = [];
        foreach (array_chunk($ids, 1000) as $chunk) {
            $rows = $this->connection->fetchAllAssociative(
                'SELECT s.id, s.place_id, s.alike, r.shape, r.source_kind, r.source_id, r.source_revision, r.made_of, r.ruling, r.settings, r.manifest
                 FROM surveyed_display s LEFT JOIN handed_release r ON r.id = s.current_id WHERE s.id IN (?) ORDER BY s.position, s.id',
                [$chunk],
                [ArrayParameterType::STRING],
            );
            foreach ($rows as $row) {
                ['id' => $id, 'place_id' => $place] = $row;
                assert(is_string($id) && is_string($place));
                [$zone, $outwards] = $places[$place];
                $ruling = array_map(static fn (Design $design): string => $design->id, $rules->on($id, ...$outwards));
                $alike[serialize([$zone, $ruling, $apart[$id] ?? '', array_diff_key($row, ['id' => 1, 'place_id' => 1])])][] = $id;
            }
        }

        return array_values($alike);
    }

    /** @param non-empty-list<string> $ids */
    public function inWords(array $ids): string
    {
        $names = $this->column('SELECT s.name FROM surveyed_display s WHERE s.id IN (?)', array_slice($ids, 0, self::NAMED));
        $others = count($ids) - count($names);

        return implode(', ', $names) . ($others > 0 ? sprintf(' and %d %s', $others, $others === 1 ? 'other' : 'others') : '');
    }

    /** @return Ruling<Design> every schedule, where it rules */
    public function rules(): Ruling
    {
        return $this->schedules->all();
    }

    public function display(string $id): SurveyedDisplay
    {
        return $this->displays->one($id);
    }

    /**
     * @param list<string> $ids
     * @return list<string>
     */
    private function column(string $sql, array $ids): array
    {
        $sql .= " AND {$this->reach->condition('display', 's.id')} ORDER BY s.position, s.id";

        return $ids === [] ? [] : array_values(array_filter($this->connection->fetchFirstColumn($sql, [$ids], [ArrayParameterType::STRING]), is_string(...)));
    }
}
