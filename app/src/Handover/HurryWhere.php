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
use UpperPane\Core\Document\Node;
use UpperPane\Core\Time\OpeningHours;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** Where somebody can put something up in a hurry: no more than a telephone has to know. */
final readonly class HurryWhere
{
    /** So many displays are told one by one. */
    private const MOST = 300;

    public function __construct(private Places $places, private Displays $displays, private Designs $anyDesigns, private Rights $rights, private InForce $inForce)
    {
    }

    /**
     * @return array{places: list<array{id: string, name: string, depth: int, displays: int, closes: ?array{string, string}}>,
     *         displays: list<array{id: string, name: string, place: string, closes: ?array{string, string}}>, more: bool, may_take_over: bool,
     *         takeovers: list<array{id: string, name: string, reason: string}>} closes: when the first and the last of its displays close next, where that is known of all
     */
    public function told(): array
    {
        $all = $this->places->all();
        $ids = array_flip(array_map(static fn (Place $place): string => $place->id, $all));
        $count = $this->displays->countsWithin($all);
        $known = [];
        $closesAfter = function (string $opens) use (&$known): ?int {
            return array_key_exists($opens, $known) ? $known[$opens] : $known[$opens] = $this->closesAfter($opens);
        };
        $closes = $this->closing($all, $closesAfter);
        $told = [];
        $under = function (?string $parent, int $depth) use (&$under, &$told, $all, $ids, $count, $closes): void {
            foreach ($all as $place) {
                $above = $place->parent !== null && isset($ids[$place->parent->id]) ? $place->parent->id : null;
                if ($above === $parent) {
                    $told[] = ['id' => $place->id, 'name' => $place->name, 'depth' => $depth, 'displays' => $count[$place->id] ?? 0, 'closes' => self::span($closes[$place->id] ?? [null])];
                    $under($place->id, $depth + 1);
                }
            }
        };
        $under(null, 0);
        $named = array_map(
            static fn (array $one): array => ['id' => $one['id'], 'name' => $one['name'], 'place' => $one['place'], 'closes' => self::span([$closesAfter($one['opens'])])],
            $this->displays->first(self::MOST + 1),
        );
        $mayTakeOver = $this->rights->has(Right::HandOver);
        $takeovers = [];
        foreach ($mayTakeOver ? $this->anyDesigns->all(DesignKind::Overlay) : [] as $design) {
            if (($design->document['kind'] ?? null) === 'takeover') {
                $takeovers[] = ['id' => $design->id, 'name' => $design->name, 'reason' => is_string($design->document['reason'] ?? null) ? $design->document['reason'] : ''];
            }
        }

        return ['places' => $told, 'displays' => array_slice($named, 0, self::MOST), 'more' => count($named) > self::MOST, 'may_take_over' => $mayTakeOver, 'takeovers' => $takeovers];
    }

    /**
     * @param list<Place> $places
     * @param \Closure(string): ?int $closesAfter worked out once for all that open alike
     * @return array<string, list<?int>> when displays in each place close next, Unix ms, each time once; null where one of them says none
     */
    private function closing(array $places, \Closure $closesAfter): array
    {
        [$own, $closing] = [[], []];
        foreach ($this->displays->openings() as [$place, $opens]) {
            $own[$place][] = $closesAfter($opens);
        }
        foreach ($places as $place) {
            foreach ($place->outwards() as $outer) {
                $closing[$outer] = array_values(array_unique([...$closing[$outer] ?? [], ...$own[$place->id] ?? []]));
            }
        }

        return $closing;
    }

    /** @param string $opens JSON, as Displays tells it */
    private function closesAfter(string $opens): ?int
    {
        $said = json_decode($opens, true);
        $hours = is_array($said) ? $said['hours'] ?? [] : [];
        $timezone = is_array($said) && is_string($said['timezone'] ?? null) ? $said['timezone'] : 'UTC';

        return $hours === [] ? null : OpeningHours::fromNode(Node::root($hours))->closesAfter(WallClock::in($timezone), $this->inForce->nowMs());
    }

    /**
     * @param list<?int> $closing
     * @return ?array{string, string} the first and the last; null where there are none, or one is not known
     */
    private static function span(array $closing): ?array
    {
        $known = array_filter($closing, is_int(...));

        return $known === [] || count($known) < count($closing) ? null : [(string) Instant::ofMs(min($known)), (string) Instant::ofMs(max($known))];
    }
}
