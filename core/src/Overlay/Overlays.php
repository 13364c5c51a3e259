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
     * What is drawn from when to when, by ids alone, parted only where these change; what comes after items counts as not due.
     *
     * @return list<array{int, int, list<string>}>
     * @throws DocumentRefused where there are too many occurrences to be looked at
     */
    public function idsBetween(WallClock $clock, int $fromMs, int $toMs): array
    {
        $pieces = [];
        foreach ($this->between($clock, $fromMs, $toMs) as [$from, $to, $standing]) {
            $ids = array_map(static fn (InForce $one): string => $one->overlay->id, self::drawn($standing));
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
     * Which are in force from when to when, in [from, to), without hole.
     *
     * @param bool $following whether those that come after items are so for as long as they may; else they count as not due
     * @return list<array{int, int, list<InForce>}>
     * @throws DocumentRefused where there are too many occurrences to be looked at
     */
    public function between(WallClock $clock, int $fromMs, int $toMs, bool $following = false): array
    {
        $edges = [$fromMs => true];
        $spells = [];
        foreach ($this->all as $place => $overlay) {
            foreach ($overlay->when->after !== null && !$following ? [] : $overlay->when->spells($clock, $fromMs, $toMs) as $spell) {
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
            $pieces[] = [$from, $edges[$n + 1] ?? $toMs, $standing];
        }

        return $fromMs < $toMs ? $pieces : [];
    }
}
