<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Data\Rows\Condition;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** A colour over the rows for which something holds. */
final readonly class Highlight
{
    private const MOST_CONDITIONS = 20;

    /** @param list<Condition> $where all must hold */
    private function __construct(public array $where, public Colour $fill)
    {
    }

    public static function field(): Field
    {
        return Field::object(Fields::of([
            'where' => Field::list(Condition::field(), self::MOST_CONDITIONS)->required(),
            'fill' => Field::colour()->required(),
        ])->named('Highlight'));
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        $node->object('where', 'fill');

        return new self(array_map(Condition::fromNode(...), $node->field('where')->items(self::MOST_CONDITIONS)), Colour::fromNode($node->field('fill')));
    }

    /** @param array<string, string|int|float|bool|Instant|Day|null> $row */
    public function holds(array $row, int $ms, WallClock $clock): bool
    {
        foreach ($this->where as $condition) {
            $value = $row[$condition->field] ?? null;
            if (!$condition->dependsOnTime()) {
                if (!$condition->holds($value)) {
                    return false;
                }
                continue;
            }
            [$from, $to] = $condition->span($value, $clock);
            if ($ms < $from || $ms >= $to) {
                return false;
            }
        }

        return true;
    }

    /**
     * The instants at which it may begin or cease to hold, by themselves.
     *
     * @param array<string, string|int|float|bool|Instant|Day|null> $row
     * @return list<int> Unix ms
     */
    public function edges(array $row, WallClock $clock): array
    {
        $edges = [];
        foreach ($this->where as $condition) {
            if ($condition->dependsOnTime()) {
                array_push($edges, ...$condition->span($row[$condition->field] ?? null, $clock));
            }
        }

        return $edges;
    }
}
