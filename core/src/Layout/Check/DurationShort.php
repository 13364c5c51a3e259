<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Type\ReadingTime;

/** `duration.short`: a layout in a zone that goes before its words can be read (Layout\Reading). */
final readonly class DurationShort implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'duration.short',
                'warning',
                'a layout in a zone that stands for less than 1 s and twice the time of its words at 180 a minute',
                'it goes before it is read',
                'common practice',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach ($subject->layout->zones as $zone) {
            $enabled = $zone->playlist->enabled();
            $loop = $subject->layout->loops[$zone->id()];
            $told = [];
            foreach ($loop->items as $slot => $index) {
                $item = $enabled[$index];
                // How long data stand that it lasts as long as, their own checks tell.
                if ($item->layout === null || isset($told[$item->id]) || $zone->isAsLongAsData($item)) {
                    continue;
                }
                $inner = $zone->layouts[$item->id];
                $words = ReadingTime::wordsIn($inner);
                $needed = ReadingTime::neededMs($words);
                $length = $loop->lengths[$slot];
                $last = $slot === count($loop->items) - 1;
                if ($length >= $needed || ($loop->periodMs === null && $last)) {
                    continue;
                }
                $told[$item->id] = true;
                yield new Finding(
                    'duration.short',
                    Level::Warning,
                    [$zone->id()],
                    sprintf('"%s" shows %d words for %s s in "%s"; reading them takes %d s.', $inner->name, $words, round($length / 1000, 1), $zone->id(), intdiv($needed, 1000)),
                    ['item' => $item->id, 'words' => $words, 'duration_ms' => $length, 'needed_ms' => $needed],
                    $zone->rect(),
                    $item->durationMs === null ? [] : [Fix::item(sprintf('Show it for %d s', intdiv($needed, 1000)), $zone->id(), $item->id, ['duration_ms' => $needed])],
                );
            }
        }
    }
}
