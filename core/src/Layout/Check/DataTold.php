<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Told\PlaysByData;
use UpperPane\Core\Layout\Told\Reading;
use UpperPane\Core\Layout\Told\ReadsData;
use UpperPane\Core\Layout\Told\Speaking;
use UpperPane\Core\Layout\Told\TellsRows;

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
            if ($element instanceof PlaysByData) {
                yield from self::ofItems($element);
            }
            $reading = $element instanceof ReadsData ? $element->reads() : null;
            if ($element instanceof ReadsData && $reading !== null) {
                yield from self::of($element, sprintf('"%s"', $element->id()), $reading, $element->missing(...));
            }
            if ($element instanceof TellsRows && $reading === null) {
                yield from self::ofPlace($element, $subject->surroundings->speaking);
            }
        }
    }

    /** @return iterable<Finding> what it tells of the place, and nobody states there */
    private static function ofPlace(TellsRows $element, Speaking $speaking): iterable
    {
        $names = array_merge(...array_map(static fn (Message $one): array => $one->names(), $element->messages()), ...[[]]);
        $ofPlace = array_filter(array_unique($names), static fn (string $name): bool => str_starts_with($name, Formats::PLACE));
        $missing = array_values(array_diff($ofPlace, array_keys($speaking->arguments())));
        if ($missing !== []) {
            yield new Finding(
                'data.missing',
                Level::Warning,
                [$element->id()],
                sprintf('"%s": %s %s told by a fallback: no place states it.', $element->id(), implode(', ', $missing), count($missing) === 1 ? 'is' : 'are'),
                ['arguments' => $missing, 'count' => count($missing), 'row' => null],
                $element->rect(),
            );
        }
    }

    /** @return iterable<Finding> */
    private static function ofItems(PlaysByData $element): iterable
    {
        foreach ($element->conditions() as [$what, $when]) {
            if ($when->inTime === null) {
                yield self::unknown($element, "$what plays", $when->when->rows->source);
            }
        }
        foreach ($element->rowByRow() as [$what, $each]) {
            yield from self::of($element, $what, $each->reading, $each->missing(...));
        }
    }

    private static function unknown(Element $element, string $what, string $source): Finding
    {
        $message = sprintf('%s only while rows of "%s" are chosen, and there is no such source.', $what, $source);

        return new Finding('data.unknown', Level::Stop, [$element->id()], $message, ['source' => $source], $element->rect());
    }

    /**
     * @param string $what as it is called
     * @param \Closure(): ?array{names: list<string>, count: int, row: int} $told what it tells by fallbacks
     * @return iterable<Finding>
     */
    private static function of(Element $element, string $what, Reading $reading, \Closure $told): iterable
    {
        $id = $element->id();
        if ($reading->inTime === null) {
            yield new Finding(
                'data.unknown',
                Level::Stop,
                [$id],
                sprintf('%s tells rows of "%s", and there is no such source.', $what, $reading->rows->source),
                ['source' => $reading->rows->source],
                $element->rect(),
            );

            return;
        }
        $missing = $told();
        if ($missing !== null) {
            yield new Finding(
                'data.missing',
                Level::Warning,
                [$id],
                sprintf(
                    '%s: %s %s told by a fallback, %s; first in row %d.',
                    $what,
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
                    '%s: %s of "%s" %s not fit the type of %s field.',
                    $what,
                    $unreadable === 1 ? 'one value' : "$unreadable values",
                    $reading->sourceName(),
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
                sprintf('%s tells data of "%s" that are %d s old; %d s are allowed.', $what, $reading->sourceName(), $age, intdiv($snapshot->staleAfterMs ?? 0, 1000)),
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
