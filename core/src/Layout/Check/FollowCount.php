<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Time\Item;

/** `follow.count`: a zone that changes with another, but has more or fewer items: what stands beside what is another at every round. */
final readonly class FollowCount implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'follow.count',
                'warning',
                'a zone that changes with another and has more or fewer items; the cure switches the last of the longer list off',
                'what stands beside what is another at every round',
                'common practice',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        $zones = $subject->layout->zones;
        foreach ($zones as $zone) {
            $leader = $zone->follows === null ? null : $zones[$zone->follows] ?? null;
            if ($leader === null) {
                continue;
            }
            [$own, $led] = [count($zone->playlist->cycle()), count($leader->playlist->cycle())];
            if ($own === $led || $own === 0 || $led === 0) {
                continue;
            }
            [$more, $fewer, $by] = $own > $led ? [$zone, $leader, $own - $led] : [$leader, $zone, $led - $own];
            yield new Finding(
                'follow.count',
                Level::Warning,
                [$zone->id(), $leader->id()],
                sprintf(
                    '"%s" has %s and changes with "%s", which has %s: put %d more into "%s", or take %d out of "%s".',
                    $zone->id(),
                    self::items($own),
                    $leader->id(),
                    self::items($led),
                    $by,
                    $fewer->id(),
                    $by,
                    $more->id(),
                ),
                ['items' => $own, 'leader_items' => $led],
                $zone->rect(),
                self::cures($more, $by),
            );
        }
    }

    /** @return list<Fix> switching off the last ones, where each of them comes once a round, so that the counts then agree */
    private static function cures(PlayingZone $more, int $by): array
    {
        $on = array_values(array_filter($more->playlist->items, static fn (Item $item): bool => $item->enabled));
        $last = array_slice($on, -$by);
        if ($more->playlist->extras !== [] || count($last) < $by || count($on) <= $by || array_filter($last, static fn (Item $item): bool => $item->weight > 1 || $item->tied) !== []) {
            return [];
        }

        $ids = array_map(static fn (Item $item): string => $item->id, $last);

        return [Fix::items(sprintf('Switch off the last %s of "%s"', $by === 1 ? 'one' : (string) $by, $more->id()), $more->id(), $ids, ['enabled' => false])];
    }

    private static function items(int $count): string
    {
        return $count === 1 ? '1 item' : "$count items";
    }
}
