<?php

declare(strict_types=1);

namespace UpperPane\Core\Finding;

use UpperPane\Core\Document\Refused;

/** Cures that have been tried before they are offered: none of them makes another finding. */
final readonly class Cures
{
    /**
     * The findings, each with the first of its cures after which it is gone and nothing else is found, or nothing graver; without one where there is none.
     *
     * @param list<Finding> $found
     * @param \Closure(Fix): iterable<Trial> $try refuses what cannot be done; what becomes of it: with the cure as it is, or with what it has to do beside that
     * @return list<Finding>
     */
    public static function tried(array $found, \Closure $try): array
    {
        return array_map(static function (Finding $finding) use ($try): Finding {
            foreach ($finding->cures as $cure) {
                try {
                    foreach ($try($cure) as $trial) {
                        if (self::isWell($finding, $trial)) {
                            return $finding->curedBy($trial->cure);
                        }
                    }
                } catch (Refused) {
                    // What cannot be done is not offered.
                }
            }

            return $finding->curedBy(null);
        }, $found);
    }

    private static function isWell(Finding $finding, Trial $trial): bool
    {
        // A hole that is smaller now, or in parts, is no other one.
        $holes = array_filter($trial->before, static fn (Finding $one): bool => $one->elements === [] && $one->rect !== null);
        $isLess = static fn (Finding $of): bool => $of->elements === [] && array_filter($holes, static fn (Finding $hole): bool =>
            $hole->code === $of->code && $hole->level === $of->level && $of->rect !== null && $hole->rect?->contains($of->rect) === true) !== [];
        $before = self::levels($trial->before);
        foreach (self::levels(array_filter($trial->after, static fn (Finding $one): bool => !$isLess($one))) as $of => $levels) {
            foreach ($levels as $place => $level) {
                if (!isset($before[$of][$place]) || $level < $before[$of][$place]) {
                    return false;
                }
            }
        }

        return array_filter($trial->after, static fn (Finding $one): bool => $one->code === $finding->code && $one->message === $finding->message) === [];
    }

    /**
     * How grave what is found of each matter is, the gravest first.
     *
     * @param array<Finding> $findings
     * @return array<string, list<int>> 0 for a stop
     */
    private static function levels(array $findings): array
    {
        $levels = [];
        foreach ($findings as $finding) {
            $elements = $finding->elements;
            sort($elements);
            $item = $finding->measure['item'] ?? '';
            $of = implode("\n", [$finding->code, is_string($item) ? $item : '', ...$elements]);
            $levels[$of][] = (int) array_search($finding->level, Level::cases(), true);
        }
        foreach ($levels as $of => $each) {
            sort($each);
            $levels[$of] = $each;
        }

        return $levels;
    }
}
