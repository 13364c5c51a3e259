<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Psr\Clock\ClockInterface;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\Places;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** On which displays something that is filled in stands, and how it could: of thousands those are told that are asked for by name. */
final readonly class WhereShown
{
    /** So many displays on which it stands are told, as many as one act takes. */
    private const STANDING = 200;
    /** So many of those that are called so are told. */
    private const FOUND = 60;

    public function __construct(
        private Designs $anyDesigns,
        private Displays $displays,
        private Places $places,
        private HandedReleaseRepository $releases,
        private MadeOf $madeOf,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param string $words what they, or the places that they hang in, are called; empty for all
     * @param string $first id of one that is told first where no words are asked for
     * @return array{total: int, found: int, displays: list<array<string, mixed>>, carrying: int, stands: list<array<string, mixed>>} how many are within reach;
     *         how many of them are called so, and the first of these; on how many it is to be seen, and the first on which it stands by itself
     */
    public function of(Design $filled, string $words, string $first): array
    {
        $names = $this->displays->called($this->places->all());
        $found = self::called($names, $words);
        $carrying = $this->releases->carrying($filled->id);
        $top = array_slice($words === '' && isset($names[$first]) ? array_values(array_unique([$first, ...$found])) : $found, 0, self::FOUND);
        $told = $this->told($filled, array_values(array_unique([...$top, ...array_slice($carrying, 0, self::STANDING)])));

        return [
            'total' => count($names),
            'found' => count($found),
            'displays' => array_values(array_intersect_key($told, array_flip($top))),
            'carrying' => count($carrying),
            'stands' => array_values(array_filter($told, static fn (array $one): bool => $one['stands'] !== null)),
        ];
    }

    /**
     * The nearest playlist that is open where a display hangs, and plays there.
     *
     * @param list<SurveyedDisplay> $displays
     * @param array<HandedRelease> $standing what stands on them, by display
     * @return array<Design> by display; not where there is none
     */
    public function openOn(array $displays, array $standing): array
    {
        return $this->nearest($displays, $standing, $this->parts($standing));
    }

    /** What the clock of the place says. */
    public function local(SurveyedDisplay $display): LocalTime
    {
        return LocalTime::ofSeconds(WallClock::in($display->timezone())->local($this->clock->now()->getTimestamp()));
    }

    /** Whether an item of a playlist is this. */
    public static function isOf(Node $item, Design $filled): bool
    {
        return $item->optional('layout')?->optional('ref')?->value === $filled->id;
    }

    /** Id of the booking of it in a schedule. */
    public static function booked(Design $filled): string
    {
        return "filled-$filled->id";
    }

    /**
     * @param array<string> $names what displays and their places are called, by id
     * @return list<string> ids of those in which each of the words is found
     */
    private static function called(array $names, string $words): array
    {
        $wanted = preg_split('/\s+/u', mb_strtolower($words), -1, PREG_SPLIT_NO_EMPTY) ?: [];
        $found = array_filter($names, static fn (string $name): bool => array_filter($wanted, static fn (string $word): bool => !str_contains(mb_strtolower($name), $word)) === []);

        return array_map(strval(...), array_keys($found));
    }

    /**
     * @param list<string> $ids
     * @return array<array<string, mixed>> by id, in this order
     */
    private function told(Design $filled, array $ids): array
    {
        $displays = $this->displays->those($ids);
        $standing = $this->releases->onEach($displays);
        $parts = $this->parts($standing);
        $open = $this->nearest($displays, $standing, $parts);
        $carrying = array_filter($standing, static fn (HandedRelease $one): bool => isset($parts[$one->madeOf ?? ''][$filled->id]));
        $own = $this->anyDesigns->schedulesOf(array_map(strval(...), array_keys($carrying)));
        $told = [];
        foreach ($displays as $display) {
            $current = $standing[$display->id] ?? null;
            $nearest = $open[$display->id] ?? null;
            $now = $this->local($display);
            $told[$display->id] = [
                'id' => $display->id,
                'name' => $display->about()->name,
                'place' => $display->place->id,
                'timezone' => $display->timezone(),
                'now' => (string) $now,
                'day_ends' => (string) LocalTime::ofSeconds(($now->day() + 1) * Calendar::DAY_S),
                'plays' => $current === null ? null : ['kind' => $current->sourceKind, 'name' => $current->name],
                'open' => $nearest === null ? null : ['id' => $nearest->id, 'name' => $nearest->name],
                'stands' => isset($carrying[$display->id]) ? self::stands($filled, $carrying[$display->id], $own[$display->id] ?? null, $nearest) : null,
            ];
        }

        $ordered = [];
        foreach (array_filter($ids, static fn (string $id): bool => isset($told[$id])) as $id) {
            $ordered[$id] = $told[$id];
        }

        return $ordered;
    }

    /**
     * @param array<HandedRelease> $releases
     * @return array<string, non-empty-array<true>> ids of designs that are in them, by what they are made of
     */
    private function parts(array $releases): array
    {
        return $this->madeOf->designs(array_values(array_unique(array_filter(array_map(static fn (HandedRelease $one): ?string => $one->madeOf, $releases)))));
    }

    /**
     * @param list<SurveyedDisplay> $displays
     * @param array<HandedRelease> $standing what stands on them, by display
     * @param array<string, non-empty-array<true>> $parts ids of designs that are in that, by what it is made of
     * @return array<Design> the nearest open playlist that plays there, by display
     */
    private function nearest(array $displays, array $standing, array $parts): array
    {
        $open = $this->anyDesigns->openSomewhere();
        $nearest = [];
        foreach ($displays as $display) {
            $plays = $parts[($standing[$display->id] ?? null)->madeOf ?? ''] ?? [];
            foreach ($display->place->outwards() as $place) {
                $there = array_filter($open, static fn (Design $one): bool => $one->placeId === $place && isset($plays[$one->id]));
                if ($there !== []) {
                    $nearest[$display->id] = $there[array_key_first($there)];
                    break;
                }
            }
        }

        return $nearest;
    }

    /**
     * @param ?Design $own schedule of the display
     * @return ?array{how: string, until: ?string} null where it stands within something else, which an editor takes nothing out of
     */
    private static function stands(Design $filled, HandedRelease $current, ?Design $own, ?Design $open): ?array
    {
        if ($current->sourceKind === DesignKind::Filled->value && $current->sourceId === $filled->id) {
            return ['how' => ShowFilled::INSTEAD, 'until' => null];
        }
        foreach (Node::root($own->document ?? [])->optional('bookings')?->items() ?? [] as $booking) {
            if ($booking->field('id')->value === self::booked($filled)) {
                $until = $booking->optional('until')?->text() ?? ($booking->has('rrule') ? null : $booking->field('end')->text());

                return ['how' => ShowFilled::INSTEAD, 'until' => $until];
            }
        }
        foreach (Node::root($open->document ?? [])->optional('items')?->items() ?? [] as $item) {
            if (self::isOf($item, $filled)) {
                return ['how' => ShowFilled::BESIDE, 'until' => $item->optional('valid')?->optional('until')?->text()];
            }
        }

        return null;
    }
}
