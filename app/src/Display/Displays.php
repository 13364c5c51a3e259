<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use UpperPane\App\Storage\Reached;

/**
 * Displays as they were surveyed.
 *
 * @extends Reached<SurveyedDisplay>
 */
final readonly class Displays extends Reached
{
    /** So many of its revisions are told. */
    private const MOST_REVISIONS = 100;

    protected static function entity(): string
    {
        return SurveyedDisplay::class;
    }

    protected static function kind(): string
    {
        return 'display';
    }

    protected static function unknown(): string
    {
        return 'no display of the estate';
    }

    /** @return list<SurveyedDisplay> in the order of the estate */
    public function all(): array
    {
        return $this->asked($this->within('x')->orderBy('x.position')->addOrderBy('x.id'));
    }

    /**
     * @param list<Place> $places
     * @return list<SurveyedDisplay> those that hang in these places themselves
     */
    public function hangingIn(array $places): array
    {
        return $places === [] ? [] : $this->asked($this->within('x')->andWhere('x.place IN (:places)')->setParameter('places', $places)->orderBy('x.position')->addOrderBy('x.id'));
    }

    /** @return list<SurveyedDisplay> those that state a setting themselves */
    public function stating(): array
    {
        $ids = $this->entities->getConnection()->fetchFirstColumn("SELECT id FROM surveyed_display WHERE JSON_LENGTH(settings) > 0 AND {$this->reach->condition('display', 'id')}");

        return $ids === [] ? [] : $this->asked($this->within('x')->andWhere('x.id IN (:ids)')->setParameter('ids', $ids)->orderBy('x.position')->addOrderBy('x.id'));
    }

    /** @return array<int> how many hang in each place itself, by its id */
    public function counts(): array
    {
        $rows = $this->entities->getConnection()->fetchAllKeyValue("SELECT place_id, COUNT(*) FROM surveyed_display WHERE {$this->reach->condition('display', 'id')} GROUP BY place_id");

        return array_map(static fn (mixed $count): int => is_numeric($count) ? (int) $count : 0, $rows);
    }

    /**
     * @param list<Place> $places
     * @return array<int> how many hang in each of them or in a place within it, by its id
     */
    public function countsWithin(array $places): array
    {
        [$own, $counts] = [$this->counts(), []];
        foreach ($places as $place) {
            foreach ($place->outwards() as $outer) {
                $counts[$outer] = ($counts[$outer] ?? 0) + ($own[$place->id] ?? 0);
            }
        }

        return $counts;
    }

    /** @return list<array{id: string, name: string, place: string, opens: string}> the first so many, by name and opening hours alone */
    public function first(int $most): array
    {
        $rows = $this->entities->getConnection()->fetchAllNumeric(
            "SELECT s.id, s.name, s.place_id, {$this->opens()} FROM surveyed_display s WHERE {$this->reach->condition('display', 's.id')} ORDER BY s.position, s.id LIMIT $most",
        );
        $text = static fn (mixed $one): string => is_string($one) ? $one : '';

        return array_map(static fn (array $row): array => ['id' => $text($row[0]), 'name' => $text($row[1]), 'place' => $text($row[2]), 'opens' => $text($row[3])], $rows);
    }

    /** @return list<array{string, string}> places in which displays hang, and when these are open; each once */
    public function openings(): array
    {
        $rows = $this->entities->getConnection()->fetchAllNumeric(
            "SELECT DISTINCT s.place_id, {$this->opens()} FROM surveyed_display s WHERE {$this->reach->condition('display', 's.id')}",
        );

        return array_map(static fn (array $row): array => [is_string($row[0]) ? $row[0] : '', is_string($row[1]) ? $row[1] : ''], $rows);
    }

    /** When a display is open, and on which clock, as SQL. */
    private function opens(): string
    {
        return "JSON_OBJECT('timezone', JSON_VALUE(s.settled, '$.timezone'), 'hours', JSON_EXTRACT(s.settled, '$.hours'))";
    }

    /** Whether there is one of this id, whoever reaches it. */
    public function isTaken(string $id): bool
    {
        return $this->entities->find(SurveyedDisplay::class, $id) !== null;
    }

    public function lastPosition(): int
    {
        $last = $this->entities->getConnection()->fetchOne('SELECT COALESCE(MAX(position), 0) FROM surveyed_display');

        return is_numeric($last) ? (int) $last : 0;
    }

    /**
     * @param list<Place> $places those of the estate
     * @return array<string> what each is called, and the places it hangs in, by id, in the order of the estate
     */
    public function called(array $places): array
    {
        $ways = [];
        foreach ($places as $place) {
            $ways[$place->id] = implode(' ', $place->way());
        }
        $called = [];
        foreach (
            $this->entities->getConnection()->fetchAllNumeric(
                "SELECT id, place_id, name FROM surveyed_display WHERE {$this->reach->condition('display', 'id')} ORDER BY position, id",
            ) as [$id, $place, $name]
        ) {
            if (is_string($id) && is_string($place) && is_string($name)) {
                $called[$id] = $name . ' ' . ($ways[$place] ?? '');
            }
        }

        return $called;
    }

    /** @return list<string> names of all that are called so, with or without a number behind it */
    public function names(string $stem): array
    {
        $like = addcslashes($stem, '%_\\') . '%';

        return array_values(array_filter($this->entities->getConnection()->fetchFirstColumn('SELECT name FROM surveyed_display WHERE name LIKE ?', [$like]), is_string(...)));
    }

    /** @return list<SurveyRevision> the newest first */
    public function revisions(SurveyedDisplay $display): array
    {
        return $this->entities->getRepository(SurveyRevision::class)->findBy(['displayId' => $display->id], ['id' => 'DESC'], self::MOST_REVISIONS);
    }

    public function keep(SurveyedDisplay $display, ?string $note = null): void
    {
        $this->entities->persist($display);
        $this->entities->persist($display->asRevision($note));
    }
}
