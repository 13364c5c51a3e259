<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;

/** `item.cut`: a slot that is shorter than the film or loop it shows. */
final readonly class ItemCut implements Check
{
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
                if ($own === null || $given === 0 || $given >= $own || isset($told[$item->id])) {
                    continue;
                }
                $told[$item->id] = true;
                yield new Finding(
                    'item.cut',
                    Level::Warning,
                    [$zone->id()],
                    sprintf(
                        '"%s" lasts %s s and is given %s s in "%s": %s s are cut.',
                        $item->media !== null ? $item->media->name : $zone->layouts[$item->id]->name,
                        $own / 1000,
                        $given / 1000,
                        $zone->id(),
                        ($own - $given) / 1000,
                    ),
                    ['item' => $item->id, 'length_ms' => $own, 'duration_ms' => $given, 'cut_ms' => $own - $given],
                    $zone->rect(),
                    $zone->follows === null ? Fix::item(sprintf('Play all %s s', $own / 1000), $zone->id(), $item->id, ['duration_ms' => $own]) : null,
                );
            }
        }
    }
}
