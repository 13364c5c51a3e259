<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\HasWords;
use UpperPane\Core\Layout\Told\InLanguages;
use UpperPane\Core\Layout\Told\TakesTurns;
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
                'a layout in a zone, or a language that takes turns, that stands for less than 1 s and twice the time of its words at 180 a minute',
                'it goes before it is read',
                'common practice',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach (self::tooBriefLanguages($subject->layout) as [$elements, $measure]) {
            yield new Finding(
                'duration.short',
                Level::Warning,
                $elements,
                sprintf('In %s %s shows %s.', $measure['language'], self::listed($elements), self::brief($measure)),
                $measure,
                $subject->layout->element($elements[0])?->rect(),
                array_map(static fn (string $id): Fix => Fix::element(
                    sprintf('Let each language stand for %d s', intdiv($measure['needed_ms'], 1000)),
                    $id,
                    ['turn_ms' => $measure['needed_ms']],
                ), count($elements) === 1 ? $elements : []),
            );
        }
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
                foreach (self::tooBriefLanguages($inner) as [, $measure]) {
                    $told[$item->id] = true;
                    yield new Finding(
                        'duration.short',
                        Level::Warning,
                        [$zone->id()],
                        sprintf('In %s "%s" shows %s in "%s".', $measure['language'], $inner->name, self::brief($measure), $zone->id()),
                        ['item' => $item->id] + $measure,
                        $zone->rect(),
                    );
                }
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

    /**
     * Languages that do not stand until they are read. What takes turns in the same time is read together.
     *
     * @return list<array{non-empty-list<string>, array{language: string, words: int, duration_ms: int, needed_ms: int}}> the elements, and the figures
     */
    private static function tooBriefLanguages(Composed $layout): array
    {
        $together = [];
        foreach ($layout->visible()->elements as $element) {
            $languages = $element instanceof TakesTurns ? $element->inLanguages() : null;
            if ($languages !== null) {
                $together[$languages->turnMs][] = $languages;
            }
        }
        $brief = [];
        foreach ($together as $turnMs => $all) {
            foreach ($all[0]->languages() as $number => $language) {
                $spoken = array_map(static fn (InLanguages $one): TakesTurns => $one->element($number), $all);
                $words = array_sum(array_map(static fn (TakesTurns $one): int => $one instanceof HasWords ? $one->wordCount() : 0, $spoken));
                if (ReadingTime::neededMs($words) > $turnMs) {
                    $brief[] = [
                        array_map(static fn (TakesTurns $one): string => $one->id(), $spoken),
                        ['language' => $language, 'words' => $words, 'duration_ms' => $turnMs, 'needed_ms' => ReadingTime::neededMs($words)],
                    ];
                }
            }
        }

        return $brief;
    }

    /** @param array{words: int, duration_ms: int, needed_ms: int} $measure */
    private static function brief(array $measure): string
    {
        return sprintf('%d words for %s s; reading them takes %d s', $measure['words'], round($measure['duration_ms'] / 1000, 1), intdiv($measure['needed_ms'], 1000));
    }

    /** @param list<string> $elements */
    private static function listed(array $elements): string
    {
        return implode(', ', array_map(static fn (string $id): string => "\"$id\"", array_slice($elements, 0, 3))) . (count($elements) > 3 ? sprintf(' and %d more', count($elements) - 3) : '');
    }
}
