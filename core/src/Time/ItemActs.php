<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Document\ActRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Units\TypedTime;

/**
 * What hands do to the items of a list, as it is said from outside: `{"do": name, ...}`. Items that are tied move together; a film that lasts as long
 * as it is says nothing; a transition lies inside what it leads to. A new act is a line in the table.
 *
 * @phpstan-type Fields array<string, mixed>
 */
final readonly class ItemActs
{
    /** How long a picture or a layout stands until somebody says otherwise, ms. */
    private const STANDS_MS = 10_000;
    /** How long a transition that is chosen takes, ms. */
    private const MOVES_MS = 600;

    /** @var array<string, list<string>> the fields of each act */
    private const FIELDS = [
        'add' => ['items'],
        'move' => ['item', 'by'],
        'put' => ['item', 'target'],
        'last' => ['item', 'ms', 'typed', 'how'],
        'come' => ['item', 'kind'],
    ];

    /**
     * @param list<Fields> $items as written
     * @param list<string> $taken ids that nothing new may have, beside those in the list
     * @return list<Fields>
     * @throws Refused
     */
    public static function done(array $items, array $taken, Node $act): array
    {
        $name = $act->act(self::FIELDS);
        if ($name === 'add') {
            return self::added($items, $taken, array_map(static fn (Node $one): array => $one->fields(), $act->field('items')->items(1000)));
        }
        $place = self::place($items, $act->field('item'));

        return match ($name) {
            'move' => self::moved($items, $place, $act->field('by')->int(-1, 1) < 0),
            'put' => self::put($items, $place, self::place($items, $act->field('target'))),
            'last' => self::with($items, $place, self::told($items[$place], $act)),
            default => self::with($items, $place, ['transition' => self::coming($items[$place], $act->field('kind')->oneOf(...array_column(TransitionKind::cases(), 'value')))]),
        };
    }

    /**
     * Which ways of lasting an item may have.
     *
     * @param bool $follows whether its zone changes with another
     * @return list<string> `stated`, or values of Lasts
     */
    public static function mayLast(Item $item, bool $follows): array
    {
        return [
            'stated',
            ...($item->layout !== null || $item->media?->isFilm() === true ? [Lasts::Own->value] : []),
            ...($item->layout !== null || $follows ? [Lasts::Leader->value] : []),
            Lasts::Endless->value,
        ];
    }

    /**
     * Items put behind the others under ids of their own; what they do not say is as usual: a picture fills its box, a layout is seen whole.
     *
     * @param list<Fields> $items
     * @param list<string> $taken
     * @param list<Fields> $added
     * @return list<Fields>
     */
    private static function added(array $items, array $taken, array $added): array
    {
        foreach ($added as $item) {
            $known = [...$taken, ...array_column($items, 'id')];
            for ($number = count($items) + 1; in_array("i$number", $known, true); $number++) {
            }
            $isFilm = self::filmMs($item) !== null;
            $usual = ($isFilm ? [] : ['duration_ms' => self::STANDS_MS]) + ['fit' => (isset($item['layout']) ? FitMode::Contain : FitMode::Cover)->value];
            $items[] = ['id' => "i$number"] + $item + (isset($item['lasts']) ? array_diff_key($usual, ['duration_ms' => 1]) : $usual);
        }

        return $items;
    }

    /**
     * One place earlier or later; items that are tied together move together.
     *
     * @param list<Fields> $items
     * @return list<Fields>
     */
    private static function moved(array $items, int $place, bool $isEarlier): array
    {
        [$from, $to] = self::family($items, $place);
        if ($isEarlier ? $from === 0 : $to === count($items)) {
            return $items;
        }
        [$begin, $end] = self::family($items, $isEarlier ? $from - 1 : $to);
        $family = array_splice($items, $from, $to - $from);
        array_splice($items, $isEarlier ? $begin : $from + $end - $to, 0, $family);

        return $items;
    }

    /**
     * To the place of another, so that it comes there instead.
     *
     * @param list<Fields> $items
     * @return list<Fields>
     */
    private static function put(array $items, int $place, int $target): array
    {
        [$from, $to] = self::family($items, $place);
        if ($target >= $from && $target < $to) {
            return $items;
        }
        [$id, $other] = [$items[$place]['id'] ?? null, $items[$target]['id'] ?? null];
        $isEarlier = $target < $place;
        while ($isEarlier ? $place > $target : $place < $target) {
            $next = self::moved($items, $place, $isEarlier);
            if ($next === $items) {
                break;
            }
            $items = $next;
            $ids = array_column($items, 'id');
            [$place, $target] = [(int) array_search($id, $ids, true), (int) array_search($other, $ids, true)];
        }

        return $items;
    }

    /**
     * The items that stay neighbours of one: from the first of them to behind the last.
     *
     * @param list<Fields> $items
     * @return array{int, int}
     */
    private static function family(array $items, int $place): array
    {
        [$from, $to] = [$place, $place + 1];
        while ($from > 0 && ($items[$from]['tied'] ?? false) === true) {
            $from--;
        }
        while ($to < count($items) && ($items[$to]['tied'] ?? false) === true) {
            $to++;
        }

        return [$from, $to];
    }

    /**
     * How long an item is told to last: in ms, as somebody typed it, or in another way.
     *
     * @param Fields $item
     * @return Fields fields to be set; null: to be left out
     */
    private static function told(array $item, Node $act): array
    {
        return match (true) {
            $act->has('ms') => self::lastingMs($item, $act->field('ms')->int(1, PHP_INT_MAX, 'ms')),
            $act->has('typed') => self::lastingMs($item, TypedTime::ms($act->field('typed')->text(0, 200), $act->field('typed')->path)),
            default => self::lasting($item, $act->field('how')->oneOf('stated', ...array_column(Lasts::cases(), 'value'))),
        };
    }

    /**
     * @param Fields $item
     * @return Fields what changes; null takes a field away
     */
    private static function lastingMs(array $item, int $ms): array
    {
        $transition = $item['transition'] ?? null;
        $moves = is_array($transition) ? $transition['ms'] ?? Transition::USUAL_MS : null;
        $inside = is_array($transition) && is_int($moves) && ($transition['kind'] ?? null) !== TransitionKind::Cut->value
            ? ['transition' => array_replace($transition, ['ms' => min($moves, $ms)])]
            : [];

        return ['duration_ms' => self::filmMs($item) === $ms ? null : $ms, 'lasts' => null] + $inside;
    }

    /**
     * @param Fields $item
     * @return Fields what changes; null takes a field away
     */
    private static function lasting(array $item, string $how): array
    {
        $film = self::filmMs($item);

        return match (true) {
            $how === 'stated' => ['duration_ms' => $film ?? self::STANDS_MS, 'lasts' => null],
            $how === Lasts::Own->value && $film !== null => ['duration_ms' => null, 'lasts' => null],
            default => ['duration_ms' => null, 'lasts' => $how],
        };
    }

    /**
     * @param Fields $item
     * @return ?array<string, mixed> null for a cut
     */
    private static function coming(array $item, string $kind): ?array
    {
        $had = is_array($item['transition'] ?? null) ? $item['transition']['ms'] ?? null : null;
        $longest = $item['duration_ms'] ?? self::filmMs($item);
        $ms = min(is_int($had) ? $had : self::MOVES_MS, is_int($longest) ? $longest : self::MOVES_MS);

        return $kind === TransitionKind::Cut->value ? null : ['kind' => $kind, 'ms' => $ms];
    }

    /**
     * @param Fields $item
     * @return ?int ms; null of what is no film
     */
    private static function filmMs(array $item): ?int
    {
        $media = $item['media'] ?? null;

        return is_array($media) ? Media::fromNode(Node::root($media))->lengthMs : null;
    }

    /**
     * @param list<Fields> $items
     * @param Fields $change null takes a field away
     * @return list<Fields>
     */
    private static function with(array $items, int $place, array $change): array
    {
        $items[$place] = array_filter(array_replace($items[$place], $change), static fn (mixed $value): bool => $value !== null);

        return $items;
    }

    /**
     * @param list<Fields> $items
     * @throws Refused
     */
    private static function place(array $items, Node $id): int
    {
        $place = array_search($id->id(), array_column($items, 'id'), true);

        return is_int($place) ? $place : throw ActRefused::because(Reason::RefUnknown, sprintf('"%s" is no item of this list.', $id->id()), $id->path);
    }
}
