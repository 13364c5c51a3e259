<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Units\WallClock;

/** The overlays of a display, lowest first. */
final readonly class Overlays
{
    /** @param list<Overlay> $all lowest first */
    private function __construct(public array $all)
    {
    }

    /** @throws DocumentRefused where two have one id */
    public static function of(Overlay ...$overlays): self
    {
        $ids = [];
        foreach ($overlays as $overlay) {
            if (isset($ids[$overlay->id])) {
                throw DocumentRefused::because(Reason::IdTwice, sprintf('There are two overlays of the id "%s".', $overlay->id), '/id');
            }
            $ids[$overlay->id] = true;
        }
        $overlays = array_values($overlays);
        usort($overlays, static fn (Overlay $a, Overlay $b): int => $a->comparedTo($b));

        return new self($overlays);
    }

    /**
     * Those that are in force at an instant, lowest first.
     *
     * @param \Closure(After): ?int $followed since when one that comes after items does so, Unix ms; null while it does not
     * @param list<string> $without ids of those that are left out
     * @return list<InForce>
     */
    public function at(WallClock $clock, int $ms, \Closure $followed, array $without = []): array
    {
        $standing = [];
        foreach ($this->all as $overlay) {
            $anchor = in_array($overlay->id, $without, true) ? null : $overlay->when->at($clock, $ms);
            $after = $overlay->when->after;
            $anchor = $anchor !== null && $after !== null ? $followed($after) : $anchor;
            if ($anchor !== null) {
                $standing[] = new InForce($overlay, $anchor);
            }
        }

        return $standing;
    }

    /**
     * What is drawn of those in force: of windows and of takeovers the highest alone, and nothing below a takeover.
     *
     * @param list<InForce> $standing lowest first
     * @return list<InForce>
     */
    public static function drawn(array $standing): array
    {
        $top = end($standing);
        if ($top !== false && $top->overlay->lies instanceof Takeover) {
            return [$top];
        }
        $windows = array_filter($standing, static fn (InForce $one): bool => $one->overlay->lies instanceof Window);

        return array_values(array_diff_key($standing, array_slice($windows, 0, -1, true)));
    }

    /**
     * The same by their ids alone, parted only where these change.
     *
     * @return list<array{int, int, list<string>}>
     * @throws DocumentRefused where there are too many occurrences to be looked at
     */
    public function idsBetween(WallClock $clock, int $fromMs, int $toMs): array
    {
        $pieces = [];
        foreach ($this->between($clock, $fromMs, $toMs) as [$from, $to, $drawn]) {
            $ids = array_map(static fn (InForce $one): string => $one->overlay->id, $drawn);
            $last = count($pieces) - 1;
            if ($last >= 0 && $pieces[$last][2] === $ids) {
                $pieces[$last][1] = $to;
            } else {
                $pieces[] = [$from, $to, $ids];
            }
        }

        return $pieces;
    }

    /**
     * Which are drawn from when to when, in [from, to), without hole; what comes after items counts as not due.
     *
     * @return list<array{int, int, list<InForce>}>
     * @throws DocumentRefused where there are too many occurrences to be looked at
     */
    public function between(WallClock $clock, int $fromMs, int $toMs): array
    {
        $edges = [$fromMs => true];
        $spells = [];
        foreach ($this->all as $place => $overlay) {
            foreach ($overlay->when->after !== null ? [] : $overlay->when->spells($clock, $fromMs, $toMs) as $spell) {
                $edges[$spell->fromMs] = $edges[$spell->toMs] = true;
                $spells[$place][] = $spell;
            }
        }
        unset($edges[$toMs]);
        ksort($edges);
        $edges = array_keys($edges);
        $next = array_fill_keys(array_keys($spells), 0);
        $pieces = [];
        foreach ($edges as $n => $from) {
            $standing = [];
            foreach ($spells as $place => $own) {
                while (isset($own[$next[$place]]) && $own[$next[$place]]->toMs <= $from) {
                    $next[$place]++;
                }
                $spell = $own[$next[$place]] ?? null;
                if ($spell !== null && $spell->fromMs <= $from) {
                    $standing[] = new InForce($this->all[$place], $spell->anchorMs);
                }
            }
            $pieces[] = [$from, $edges[$n + 1] ?? $toMs, self::drawn($standing)];
        }

        return $fromMs < $toMs ? $pieces : [];
    }
}
