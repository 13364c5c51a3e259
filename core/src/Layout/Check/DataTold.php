<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Layout\Told\Reading;
use UpperPane\Core\Layout\Told\ReadsData;

/** What is wrong with the data that an element tells, whatever kind it is. */
final readonly class DataTold implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation('data.unknown', 'stop', 'rows of a source that is not there', 'nothing is told', 'arithmetic'),
            new Explanation('data.missing', 'warning', 'arguments of messages that are told by their fallback: which, how often, and the first row', 'viewers read a fallback', 'arithmetic'),
            new Explanation('data.unreadable', 'warning', 'values that do not fit the type of their field', 'they count as missing', 'arithmetic'),
            new Explanation('data.stale', 'warning', 'data that are older than their source allows', 'viewers read what may not be true any more', 'arithmetic'),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach ($subject->layout->elements as $element) {
            $when = $subject->layout->whens[$element->id()] ?? null;
            if ($when !== null && $when->inTime === null) {
                yield self::unknown($element, sprintf('"%s" is drawn', $element->id()), $when->when->rows->source);
            }
            if ($element instanceof PlayingZone) {
                yield from self::ofItems($element);
            }
            $reading = $element instanceof ReadsData ? $element->reads() : null;
            if ($element instanceof ReadsData && $reading !== null) {
                yield from self::of($element, $reading);
            }
        }
    }

    /** @return iterable<Finding> */
    private static function ofItems(PlayingZone $zone): iterable
    {
        foreach ($zone->playlist->enabled() as $item) {
            $when = $zone->whens[$item->id] ?? null;
            if ($when !== null && $when->inTime === null) {
                yield self::unknown($zone, sprintf('"%s" in "%s" plays', $zone->nameOf($item), $zone->id()), $when->when->rows->source);
            }
        }
    }

    private static function unknown(Element $element, string $what, string $source): Finding
    {
        $message = sprintf('%s only while rows of "%s" are chosen, and there is no such source.', $what, $source);

        return new Finding('data.unknown', Level::Stop, [$element->id()], $message, ['source' => $source], $element->rect());
    }

    /** @return iterable<Finding> */
    private static function of(ReadsData $element, Reading $reading): iterable
    {
        $id = $element->id();
        if ($reading->inTime === null) {
            yield new Finding(
                'data.unknown',
                Level::Stop,
                [$id],
                sprintf('"%s" tells rows of "%s", and there is no such source.', $id, $reading->rows->source),
                ['source' => $reading->rows->source],
                $element->rect(),
            );

            return;
        }
        $missing = $element->missing();
        if ($missing !== null) {
            yield new Finding(
                'data.missing',
                Level::Warning,
                [$id],
                sprintf(
                    '"%s": %s %s told by a fallback, %s; first in row %d.',
                    $id,
                    implode(', ', $missing['names']),
                    count($missing['names']) === 1 ? 'is' : 'are',
                    self::times($missing['count']),
                    $missing['row'] + 1,
                ),
                ['arguments' => $missing['names'], 'count' => $missing['count'], 'row' => $missing['row']],
                $element->rect(),
            );
        }
        $unreadable = $reading->inTime->table($reading->atMs)->unreadable;
        if ($unreadable > 0) {
            yield new Finding(
                'data.unreadable',
                Level::Warning,
                [$id],
                sprintf(
                    '"%s": %s of "%s" %s not fit the type of %s field.',
                    $id,
                    $unreadable === 1 ? 'one value' : "$unreadable values",
                    $reading->rows->source,
                    $unreadable === 1 ? 'does' : 'do',
                    $unreadable === 1 ? 'its' : 'their',
                ),
                ['count' => $unreadable, 'source' => $reading->rows->source],
                $element->rect(),
            );
        }
        $snapshot = $reading->inTime->snapshot($reading->atMs);
        if ($reading->inTime->isStale($reading->atMs) && $snapshot->takenMs !== null) {
            $age = intdiv($reading->atMs - $snapshot->takenMs, 1000);
            yield new Finding(
                'data.stale',
                Level::Warning,
                [$id],
                sprintf('"%s" tells data of "%s" that are %d s old; %d s are allowed.', $id, $reading->rows->source, $age, intdiv($snapshot->staleAfterMs ?? 0, 1000)),
                ['age_s' => $age, 'source' => $reading->rows->source],
                $element->rect(),
            );
        }
    }

    private static function times(int $count): string
    {
        return $count === 1 ? 'once' : "$count times";
    }
}
