<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Arrange;

use UpperPane\Core\Layout\Kind\Zone\Zone;
use UpperPane\Core\Layout\Layout;

/** Zones poured into another one: their items follow its own, they themselves go; who followed one of them follows it. */
final readonly class Pouring
{
    /**
     * @param list<string> $zones ids
     * @return array{Layout, list<string>} and what could not come along, in sentences
     */
    public static function of(Layout $layout, array $zones, string $into): array
    {
        $all = Zone::among($layout->elements);
        [$target, $said] = [$all[$into], []];
        $list = $target->toArray()['playlist'];
        $items = self::itemsOf($list);
        foreach ($zones as $zone) {
            $other = $all[$zone]->toArray()['playlist'];
            $more = self::itemsOf($other);
            if ($items === [] && $more !== []) {
                // Nothing plays there yet: it takes over what plays here, list and all.
                [$list, $items] = [$other, $more];
            } elseif ($items === null || $more === null) {
                $more === [] ?: $said[] = sprintf('What played in "%s" is not in the joined zone: a playlist of its own does not mix with others.', $zone);
            } else {
                $items = self::appended($items, $more);
                $list = ['items' => $items];
            }
        }
        $elements = [];
        foreach ($layout->elements as $element) {
            if (in_array($element->id(), $zones, true)) {
                continue;
            }
            $next = $element->id() === $into ? $element->changed(['playlist' => $list, 'follows' => null]) : $element;
            $elements[] = $next->renamed(array_fill_keys($zones, $into), []);
        }

        return [$layout->withElements($elements), $said];
    }

    /** @return ?list<array<string, mixed>> null where the playlist is one by itself */
    private static function itemsOf(mixed $playlist): ?array
    {
        /** @var ?list<array<string, mixed>> $items of a list that has been read */
        $items = is_array($playlist) && array_keys($playlist) === ['items'] ? $playlist['items'] : null;

        return $items;
    }

    /**
     * @param list<array<string, mixed>> $items
     * @param list<array<string, mixed>> $more get ids of their own where theirs are taken
     * @return list<array<string, mixed>>
     */
    private static function appended(array $items, array $more): array
    {
        foreach ($more as $item) {
            $taken = array_column($items, 'id');
            for ($n = count($items) + 1; in_array($item['id'] ?? '', $taken, true); $n++) {
                $item['id'] = "i$n";
            }
            $items[] = $item;
        }

        return $items;
    }
}
