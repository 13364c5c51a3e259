<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Overlay\Spell;
use UpperPane\Core\Overlay\Takeover;
use UpperPane\Core\Overlay\Window;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** What is wrong with what lies above: what it covers, what falls on what, and what is never seen, or never ends. */
final class OverlayChecks
{
    /** What is covered, and what falls on what, is looked for so long ahead. */
    private const DAY_MS = 86_400_000;

    /** What a takeover hides is looked for so long ahead: eight weeks. */
    private const WEEKS_MS = 56 * 86_400_000;

    /** Things of what plays that are read: of these kinds, and parts of these kinds. */
    private const READ = ['text', 'clock', 'code', 'ticker'];

    /** @var array<string, array{element: string, overlay: string, share: float, from: int, rect: Rect}> by element and overlay */
    private array $covered = [];

    /** @var array<string, array{lower: string, upper: string, from: int, rect: Rect}> by both */
    private array $crowded = [];

    private function __construct(private readonly Overlaid $overlaid, private readonly Overlays $overlays, private readonly WallClock $clock, private readonly int $atMs)
    {
    }

    /** @return list<Explanation> of what is found here */
    public static function explained(): array
    {
        return [
            new Explanation('overlay.covers', 'warning', 'words, a clock or a code of what plays under a mark, a ticker or a notice within 24 hours', 'nobody can read it', 'arithmetic'),
            new Explanation('overlay.crowded', 'warning', 'two notices, marks or tickers that fall on each other within 24 hours', 'one hides the other', 'arithmetic'),
            new Explanation('overlay.never', 'warning', 'an overlay of which no occurrence lies ahead, or each of the next 8 weeks is hidden by a takeover', 'nobody ever sees it', 'RFC 5545'),
            new Explanation('overlay.hidden', 'hint', 'an overlay of which a takeover hides some occurrences, or a part of one, within 8 weeks', 'it is not seen then', 'RFC 5545'),
            new Explanation('overlay.hole', 'stop', 'a window without an element of kind programme, or whose picture has no transparent part', 'what plays is not seen at all', 'arithmetic'),
            new Explanation('overlay.end', 'warning', 'a takeover that goes on for ever unless somebody ends it', 'it is left on', 'common practice'),
        ];
    }

    /**
     * @param int $atMs Unix ms
     * @throws Refused where an overlay cannot be worked out
     */
    public static function run(Overlaid $overlaid, Overlays $overlays, WallClock $clock, int $atMs): Findings
    {
        return new Findings((new self($overlaid, $overlays, $clock, $atMs))->all());
    }

    /** What is found in when they are shown and in what they hold; what they cover is another matter. */
    public static function inTimes(Overlaid $overlaid, WallClock $clock, int $atMs): Findings
    {
        $checks = new self($overlaid, $overlaid->overlays, $clock, $atMs);
        $found = [];
        foreach ($overlaid->overlays->all as $overlay) {
            array_push($found, ...$checks->inTime($overlay));
        }

        return new Findings($found);
    }

    /** @return list<Finding> */
    private function all(): array
    {
        $this->walk();
        $found = [];
        foreach ($this->covered as ['element' => $element, 'overlay' => $overlay, 'share' => $share, 'from' => $from, 'rect' => $rect]) {
            $says = sprintf('"%s" covers %s %% of "%s" from %s.', $overlay, Box::figure(round(100 * $share, 1)), $element, Instant::ofMs($from));
            $found[] = new Finding('overlay.covers', Level::Warning, [$element, $overlay], $says, ['share' => round($share, 4), 'from' => (string) Instant::ofMs($from)], $rect);
        }
        foreach ($this->crowded as ['lower' => $lower, 'upper' => $upper, 'from' => $from, 'rect' => $rect]) {
            $says = sprintf('"%s" falls on "%s" in %d x %d px from %s.', $upper, $lower, $rect->width, $rect->height, Instant::ofMs($from));
            $found[] = new Finding('overlay.crowded', Level::Warning, [$lower, $upper], $says, ['from' => (string) Instant::ofMs($from)], $rect);
        }
        foreach ($this->overlays->all as $overlay) {
            array_push($found, ...$this->inTime($overlay));
        }

        return $found;
    }

    /** Looks at all that is seen in the next 24 hours; where items say what is drawn, at each moment at which something else is. */
    private function walk(): void
    {
        foreach ($this->overlays->between($this->clock, $this->atMs, $this->atMs + self::DAY_MS) as [$from, $to, $standing]) {
            $drawn = Overlays::drawn($standing);
            $isReading = array_filter($drawn, static fn (InForce $one): bool => !$one->overlay->lies instanceof Takeover) !== [];
            if ($isReading && $this->overlaid->goesByTimeAlone()) {
                $this->lookAlong($drawn, $from, $to);
            } elseif ($isReading) {
                $this->lookAtEach($from, $to);
            }
        }
    }

    /** @param list<InForce> $drawn lowest first */
    private function lookAlong(array $drawn, int $from, int $to): void
    {
        [$seen, $laid] = $this->overlaid->sightings($drawn, $from, $to);
        $laid = array_values(array_filter($laid, static fn (array $one): bool => $one[0]->opacity > 0.0));
        foreach ($seen as $part) {
            foreach (self::isRead($part) ? $laid : [] as [$above, $since]) {
                $this->cover($part, $part->rect, $above, max($since, $seen[$part]));
            }
        }
        foreach ($laid as $n => [$upper, $since]) {
            foreach (array_slice($laid, 0, $n) as [$lower, $before]) {
                $this->crowd($lower, $upper, max($since, $before));
            }
        }
    }

    private function lookAtEach(int $from, int $to): void
    {
        foreach ($this->overlaid->rounds($from, $to) as [$begins, $ends, $repeats]) {
            // What comes round is looked at once.
            $ends = $repeats === null ? $ends : min($ends, $begins + $repeats);
            for ($at = $begins; $at < $ends;) {
                $this->look($at);
                $at = $this->overlaid->nextChange($at);
            }
        }
    }

    private function look(int $at): void
    {
        [$things, $laid] = [[], []];
        foreach ($this->overlaid->at($at)->things as $thing) {
            if ($thing instanceof LaidOver) {
                $thing->opacity > 0.0 ? $laid[] = $thing : null;
            } elseif ($thing instanceof ShownPart && self::isRead($thing->part)) {
                $things[] = $thing;
            }
        }
        foreach ($laid as $n => $upper) {
            foreach ($things as $thing) {
                $rect = $thing->now['rect'] ?? $thing->part->rect;
                assert($rect instanceof Box);
                $thing->opacity > 0.0 ? $this->cover($thing->part, $rect, $upper, $at) : null;
            }
            foreach (array_slice($laid, 0, $n) as $lower) {
                $this->crowd($lower, $upper, $at);
            }
        }
    }

    /** Whether it is of what plays, and there to be read. */
    private static function isRead(Part $part): bool
    {
        return !isset($part->place['overlay']) && in_array($part->kind, self::READ, true);
    }

    private function crowd(LaidOver $lower, LaidOver $upper, int $at): void
    {
        $rect = $lower->overlay === $upper->overlay ? null : $lower->rect->intersection($upper->rect);
        if ($rect !== null) {
            $this->crowded["$lower->overlay $upper->overlay"] ??= ['lower' => $lower->overlay, 'upper' => $upper->overlay, 'from' => $at, 'rect' => $rect];
        }
    }

    /** @param Box $rect where it lies then */
    private function cover(Part $part, Box $rect, LaidOver $above, int $at): void
    {
        $common = $rect->clippedTo(Box::ofRect($above->rect));
        $area = $rect->width * $rect->height;
        if ($part->opacity <= 0.0 || $area <= 0.0 || $common->width * $common->height <= 0.0) {
            return;
        }
        $share = $common->width * $common->height / $area;
        $key = "$part->element $above->overlay";
        $known = $this->covered[$key] ?? null;
        if ($known === null || $share > $known['share'] || $at < $known['from']) {
            [$x, $y] = [(int) floor($common->x), (int) floor($common->y)];
            $more = $known === null || $share > $known['share'];
            $this->covered[$key] = [
                'element' => $part->element,
                'overlay' => $above->overlay,
                'share' => $more ? $share : $known['share'],
                'from' => min($known['from'] ?? $at, $at),
                'rect' => $more ? Rect::at($x, $y, max(1, (int) ceil($common->x + $common->width) - $x), max(1, (int) ceil($common->y + $common->height) - $y)) : $known['rect'],
            ];
        }
    }

    /** @return iterable<Finding> */
    private function inTime(Overlay $overlay): iterable
    {
        if ($overlay->lies instanceof Window && !$this->overlaid->isOpen($overlay, $overlay->lies)) {
            $lacks = $overlay->lies->plays->kind === 'media' ? 'its picture has no transparent part' : 'its layout has no element of kind programme';
            yield new Finding('overlay.hole', Level::Stop, [$overlay->id], sprintf('"%s" is a window without an opening: %s.', $overlay->name, $lacks));
        }
        if ($overlay->lies instanceof Takeover && $overlay->when->hasNoEnd()) {
            yield new Finding('overlay.end', Level::Warning, [$overlay->id], sprintf('"%s" takes over for ever unless somebody ends it. Say until when.', $overlay->name));
        }
        if (!$overlay->when->liesAhead($this->clock, $this->atMs)) {
            yield new Finding('overlay.never', Level::Warning, [$overlay->id], sprintf('Nothing of "%s" lies ahead: it is never seen.', $overlay->name));

            return;
        }
        $to = $this->atMs + self::WEEKS_MS;
        $spells = $overlay->when->spells($this->clock, $this->atMs, $to);
        $above = array_filter($this->overlays->all, static fn (Overlay $one): bool => $one->lies instanceof Takeover && $one->when->after === null && $one->comparedTo($overlay) > 0);
        $hiding = [];
        foreach ($above as $one) {
            foreach ($one->when->spells($this->clock, $this->atMs, $to) as $spell) {
                $hiding[] = [$spell->fromMs, $spell->toMs, $one->name];
            }
        }
        sort($hiding);
        $seen = array_merge(...array_map(static fn (Spell $spell): array => self::left($spell, $hiding), $spells), ...[[]]);
        $hidden = self::lasts($spells) - self::lasts($seen);
        if ($hidden === 0) {
            return;
        }
        $names = implode(', ', array_values(array_unique(array_map(static fn (Overlay $one): string => "\"$one->name\"", $above))));
        yield $seen === []
            ? new Finding('overlay.never', Level::Warning, [$overlay->id], sprintf('"%s" is hidden by %s whenever it would be seen in the next 8 weeks.', $overlay->name, $names))
            : new Finding(
                'overlay.hidden',
                Level::Hint,
                [$overlay->id],
                sprintf('"%s" is hidden by %s for %s of the %s for which it would be seen in the next 8 weeks.', $overlay->name, $names, self::long($hidden), self::long(self::lasts($spells))),
                ['hidden_ms' => $hidden],
            );
    }

    /**
     * What of a spell nothing hides.
     *
     * @param list<array{int, int, string}> $hiding from and to, Unix ms, in the order of their beginnings
     * @return list<Spell>
     */
    private static function left(Spell $spell, array $hiding): array
    {
        $left = [];
        $at = $spell->fromMs;
        foreach ($hiding as [$from, $to]) {
            if ($from > $at && $at < $spell->toMs) {
                $left[] = new Spell($at, min($from, $spell->toMs), $spell->anchorMs);
            }
            $at = max($at, $to);
        }

        return $at < $spell->toMs ? [...$left, new Spell($at, $spell->toMs, $spell->anchorMs)] : $left;
    }

    /** @param list<Spell> $spells */
    private static function lasts(array $spells): int
    {
        return array_sum(array_map(static fn (Spell $one): int => $one->toMs - $one->fromMs, $spells));
    }

    private static function long(int $ms): string
    {
        return match (true) {
            $ms >= 86_400_000 => round($ms / 86_400_000, 1) . ' days',
            $ms >= 3_600_000 => round($ms / 3_600_000, 1) . ' h',
            $ms >= 60_000 => round($ms / 60_000, 1) . ' min',
            default => round($ms / 1000, 1) . ' s',
        };
    }
}
