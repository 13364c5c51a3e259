<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Units\Integers;

/** `sound.twice`: two zones that are heard at the same instant, sooner or later. */
final readonly class SoundTwice implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'sound.twice',
                'warning',
                'items of two zones with a volume above 0 that are due together at some time',
                'one source is heard at an instant',
                'computation.md, 5; by the Chinese remainder theorem',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        $layout = $subject->layout;
        $heard = [];
        foreach ($layout->zones as $id => $zone) {
            $items = self::heard($zone);
            if ($items !== []) {
                $heard[] = [$zone, $layout->loops[$id], $items];
            }
        }
        foreach ($heard as $place => [$zone, $loop, $items]) {
            foreach (array_slice($heard, $place + 1) as [$other, $otherLoop, $otherItems]) {
                $together = self::together($loop, $items, $otherLoop, $otherItems);
                if ($together === null) {
                    continue;
                }
                [$one, $two] = [$items[$together[0]], $otherItems[$together[1]]];
                yield new Finding(
                    'sound.twice',
                    Level::Warning,
                    [$other->id(), $zone->id()],
                    sprintf(
                        '"%s" in "%s" and "%s" in "%s" are heard at the same time; one source is heard at an instant.',
                        self::name($zone, $one),
                        $zone->id(),
                        self::name($other, $two),
                        $other->id(),
                    ),
                    ['item' => $two->id, 'other_item' => $one->id],
                    $other->rect(),
                    [...self::muted($other, $two), ...self::muted($zone, $one)],
                );
            }
        }
    }

    /** @return list<Fix> none where it is a layout in which something is heard */
    private static function muted(PlayingZone $zone, Item $item): array
    {
        return $item->sound->isHeard() ? [Fix::item(sprintf('Mute "%s"', self::name($zone, $item)), $zone->id(), $item->id, ['volume' => null, 'levels' => null])] : [];
    }

    /** @return array<int, Item> the enabled items of a zone that are heard, by their index; also layouts in which something is */
    private static function heard(PlayingZone $zone): array
    {
        return array_filter($zone->playlist->enabled(), static fn (Item $item): bool => $item->sound->isHeard() || ($item->layout !== null && self::isHeard($zone->layouts[$item->id])));
    }

    private static function isHeard(Composed $layout): bool
    {
        return array_filter($layout->zones, static fn (PlayingZone $zone): bool => self::heard($zone) !== []) !== [];
    }

    /**
     * Two slots of loops that begin together are due at one instant at some time if and only if they overlap modulo the greatest
     * common divisor of the periods (Chinese remainder theorem).
     *
     * @param array<int, Item> $items
     * @param array<int, Item> $others
     * @return ?array{int, int} an item of each that meet; null where none ever do
     */
    private static function together(Loop $loop, array $items, Loop $other, array $others): ?array
    {
        foreach (self::slots($loop, array_keys($items)) as [$item, $start, $length]) {
            foreach (self::slots($other, array_keys($others)) as [$otherItem, $otherStart, $otherLength]) {
                // At hours at which one is mute, the other is heard alone.
                if ($items[$item]->media !== null && $others[$otherItem]->media !== null && !$items[$item]->sound->isHeardWith($others[$otherItem]->sound)) {
                    continue;
                }
                // What never ends meets all that comes after it; what comes once only is over long before anybody looks.
                if ($length === null || $otherLength === null) {
                    if (($length === null || $loop->periodMs !== null) && ($otherLength === null || $other->periodMs !== null)) {
                        return [$item, $otherItem];
                    }
                    continue;
                }
                if ($loop->periodMs === null || $other->periodMs === null) {
                    continue;
                }
                $common = Integers::greatestCommonDivisor([$loop->periodMs, $other->periodMs]);
                if (Integers::mod($otherStart - $start, $common) < $length || Integers::mod($start - $otherStart, $common) < $otherLength) {
                    return [$item, $otherItem];
                }
            }
        }

        return null;
    }

    /**
     * @param list<int> $items
     * @return list<array{int, int, ?int}> item, start and length of each slot, ms; no length without end
     */
    private static function slots(Loop $loop, array $items): array
    {
        $slots = [];
        foreach ($loop->items as $slot => $item) {
            if (in_array($item, $items, true) && count($slots) < 500) {
                $slots[] = [$item, $loop->starts[$slot], $loop->periodMs === null && $slot === count($loop->items) - 1 ? null : $loop->lengths[$slot]];
            }
        }

        return $slots;
    }

    private static function name(PlayingZone $zone, Item $item): string
    {
        return $item->media->name ?? $zone->layouts[$item->id]->name;
    }
}
