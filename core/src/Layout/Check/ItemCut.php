<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Composed;

/** `item.cut`: a slot that is shorter than the film or loop it shows. */
final readonly class ItemCut implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'item.cut',
                'warning',
                'a slot shorter than its film or nested loop; of a layout also which films in it break off and which items are not reached, zone by zone',
                'the end is never seen',
                'arithmetic',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach ($subject->layout->zones as $id => $zone) {
            $enabled = $zone->playlist->enabled();
            $loop = $subject->layout->loops[$id];
            $told = [];
            foreach ($loop->items as $slot => $index) {
                $item = $enabled[$index];
                $own = $zone->ownLengthMs($item);
                $given = $loop->lengths[$slot];
                $inside = $item->layout === null || $given === 0 ? [] : self::inside($zone->layouts[$item->id], $given);
                if ($given === 0 || isset($told[$item->id]) || ($own === null ? $inside === [] : $given >= $own)) {
                    continue;
                }
                $told[$item->id] = true;
                yield new Finding(
                    'item.cut',
                    Level::Warning,
                    [$zone->id()],
                    sprintf(
                        '"%s" %s given %s s in "%s": %s.',
                        $item->media !== null ? $item->media->name : $zone->layouts[$item->id]->name,
                        $own === null ? 'is' : sprintf('lasts %s s and is', $own / 1000),
                        $given / 1000,
                        $zone->id(),
                        implode('; ', [...($own === null ? [] : [sprintf('%s s are cut', ($own - $given) / 1000)]), ...$inside]),
                    ),
                    ['item' => $item->id, 'length_ms' => $own, 'duration_ms' => $given, 'cut_ms' => $own === null ? null : $own - $given],
                    $zone->rect(),
                    $zone->follows !== null || $own === null ? [] : [$item->layout === null
                        ? Fix::item(sprintf('Play all %s s', $own / 1000), $zone->id(), $item->id, ['duration_ms' => $own])
                        : Fix::item(sprintf('Let it finish, %s s', $own / 1000), $zone->id(), $item->id, ['duration_ms' => null, 'lasts' => 'leader'])],
                );
            }
        }
    }

    /**
     * What a layout that is seen for so long does not show of its first round.
     *
     * @param int $given ms
     * @return list<string> in words
     */
    private static function inside(Composed $layout, int $given): array
    {
        $words = [];
        foreach ($layout->visible()->zones as $id => $zone) {
            $loop = $layout->loops[$id];
            if ($loop->items === [] || ($loop->periodMs !== null && $given >= $loop->periodMs)) {
                continue;
            }
            $enabled = $zone->playlist->enabled();
            $name = static fn (int $index): string => $enabled[$index]->media->name ?? $zone->layouts[$enabled[$index]->id]->name;
            $last = $loop->slotAt($given - 1);
            $film = $enabled[$loop->items[$last]]->media;
            $shown = $given - $loop->starts[$last];
            if ($film?->lengthMs !== null && $shown < $film->lengthMs && ($loop->lengths[$last] === 0 || $shown < $loop->lengths[$last])) {
                $words[] = sprintf('in "%s" "%s" breaks off after %s of %s s', $id, $film->name, $shown / 1000, $film->lengthMs / 1000);
            }
            $seen = array_slice($loop->items, 0, $last + 1);
            $unseen = array_values(array_unique(array_diff($loop->items, $seen)));
            if ($unseen !== []) {
                $words[] = sprintf('in "%s" %s %s not reached', $id, implode(', ', array_map(static fn (int $index): string => sprintf('"%s"', $name($index)), array_slice($unseen, 0, 3)))
                    . (count($unseen) > 3 ? sprintf(' and %d more', count($unseen) - 3) : ''), count($unseen) === 1 ? 'is' : 'are');
            }
        }

        return $words;
    }
}
