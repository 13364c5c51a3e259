<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Units\Integers;

/** `loop.drift`: two zones of as many items, probably meant to change together, whose loops are not equally long. */
final readonly class LoopDrift implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'loop.drift',
                'hint',
                'two zones of as many items whose loops are not equally long, and when they meet; the cure lets one follow the other',
                'what began together drifts apart',
                'arithmetic',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        $layout = $subject->layout;
        $leaders = array_fill_keys(array_filter(array_map(static fn (PlayingZone $zone): ?string => $zone->follows, $layout->zones)), true);
        $alone = [];
        foreach ($layout->zones as $id => $zone) {
            $loop = $layout->loops[$id];
            if ($zone->follows === null && $loop->periodMs !== null && count($loop->items) > 1) {
                $alone[] = [$zone, $loop->periodMs, count($loop->items), isset($leaders[$zone->id()])];
            }
        }
        foreach ($alone as $place => [$zone, $period, $count, $leads]) {
            foreach (array_slice($alone, $place + 1) as [$other, $otherPeriod, $otherCount, $otherLeads]) {
                if ($count !== $otherCount || $period === $otherPeriod) {
                    continue;
                }
                $meets = Integers::leastCommonMultiple([$period, $otherPeriod], Composed::YEAR_MS);
                yield new Finding(
                    'loop.drift',
                    Level::Hint,
                    [$other->id(), $zone->id()],
                    sprintf(
                        '"%s" and "%s" have %d items each, in loops of %s s and %s s: they drift apart and %s.',
                        $zone->id(),
                        $other->id(),
                        $count,
                        $period / 1000,
                        $otherPeriod / 1000,
                        $meets === null ? 'never meet within a year' : sprintf('meet every %s s', $meets / 1000),
                    ),
                    ['loop_ms' => $period, 'other_loop_ms' => $otherPeriod, 'meets_every_ms' => $meets],
                    $other->rect(),
                    [
                        ...($otherLeads ? [] : [Fix::element(sprintf('Let "%s" change with "%s"', $other->id(), $zone->id()), $other->id(), ['follows' => $zone->id()])]),
                        ...($leads ? [] : [Fix::element(sprintf('Let "%s" change with "%s"', $zone->id(), $other->id()), $zone->id(), ['follows' => $other->id()])]),
                    ],
                );
            }
        }
    }
}
