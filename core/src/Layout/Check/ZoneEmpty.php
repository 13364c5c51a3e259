<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;

/** `zone.empty`: a zone without anything to play stays blank on the display. */
final readonly class ZoneEmpty implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation('zone.empty', 'stop', 'a zone with nothing to play, or with all items off, and without standby', 'it stays blank', 'common practice'),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach ($subject->layout->zones as $zone) {
            if ($zone->list->enabled() === [] && $zone->standby === null) {
                yield new Finding('zone.empty', Level::Stop, [$zone->id()], sprintf(
                    $zone->playlist->items === [] ? 'Zone "%s" has nothing to play.' : 'All items of zone "%s" are switched off.',
                    $zone->id(),
                ), [], $zone->rect());
            }
        }
    }
}
