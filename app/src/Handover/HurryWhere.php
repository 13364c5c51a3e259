<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\App\Account\Right;
use UpperPane\App\Account\Rights;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\Places;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;

/** Where somebody can put something up in a hurry: no more than a telephone has to know. */
final readonly class HurryWhere
{
    /** So many displays are told one by one. */
    private const MOST = 300;

    public function __construct(private Places $places, private Displays $displays, private Designs $anyDesigns, private Rights $rights)
    {
    }

    /**
     * @return array{places: list<array{id: string, name: string, depth: int, displays: int}>, displays: list<array{id: string, name: string, place: string}>, more: bool,
     *         may_take_over: bool, takeovers: list<array{id: string, name: string, reason: string}>}
     */
    public function told(): array
    {
        $all = $this->places->all();
        $ids = array_flip(array_map(static fn (Place $place): string => $place->id, $all));
        $count = $this->displays->countsWithin($all);
        $told = [];
        $under = function (?string $parent, int $depth) use (&$under, &$told, $all, $ids, $count): void {
            foreach ($all as $place) {
                $above = $place->parent !== null && isset($ids[$place->parent->id]) ? $place->parent->id : null;
                if ($above === $parent) {
                    $told[] = ['id' => $place->id, 'name' => $place->name, 'depth' => $depth, 'displays' => $count[$place->id] ?? 0];
                    $under($place->id, $depth + 1);
                }
            }
        };
        $under(null, 0);
        $named = $this->displays->first(self::MOST + 1);
        $mayTakeOver = $this->rights->has(Right::HandOver);
        $takeovers = [];
        foreach ($mayTakeOver ? $this->anyDesigns->all(DesignKind::Overlay) : [] as $design) {
            if (($design->document['kind'] ?? null) === 'takeover') {
                $takeovers[] = ['id' => $design->id, 'name' => $design->name, 'reason' => is_string($design->document['reason'] ?? null) ? $design->document['reason'] : ''];
            }
        }

        return ['places' => $told, 'displays' => array_slice($named, 0, self::MOST), 'more' => count($named) > self::MOST, 'may_take_over' => $mayTakeOver, 'takeovers' => $takeovers];
    }
}
