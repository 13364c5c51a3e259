<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Layout\Pictures;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Playback\Overlaid;
use UpperPane\Core\Playback\OverlayChecks;
use UpperPane\Core\Playback\OverlayWords;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** An overlay on those of its displays that differ most, above what will really play there then, with what is found; nothing is done. */
final readonly class LookAbove
{
    private const MOST = 3;

    /** What plays is drawn for so long. */
    private const SPAN_MS = 25 * 3_600_000;

    /** So far ahead it is looked for when one is shown next. */
    private const AHEAD_MS = 56 * 86_400_000;

    public function __construct(
        private Targets $targets,
        private Programmes $programmes,
        private HandedReleaseRepository $releases,
        private Pictures $pictures,
        private PutUp $putUp,
        private InForce $inForce,
    ) {
    }

    /**
     * What is put up in a hurry.
     *
     * @param array<string, mixed> $fields of the overlay, but for when
     * @param list<string> $displays ids
     * @return array<string, mixed>
     * @throws Refused
     */
    public function of(array $fields, Node $within, array $displays): array
    {
        $now = $this->inForce->nowMs();

        return $this->told($displays, fn (SurveyedDisplay $target): array => $this->putUp->document('looked-at', $fields, $within, $target, $now)[0]);
    }

    /**
     * One that is kept, or is about to be.
     *
     * @param array<string, mixed> $document
     * @param list<string> $displays ids
     * @return array<string, mixed>
     * @throws Refused
     */
    public function overlay(array $document, array $displays): array
    {
        return $this->told($displays, static fn (SurveyedDisplay $target): array => $document);
    }

    /**
     * Where else it could lie and cover less on these displays, the best first: each is tried before it is told.
     *
     * @param array<string, mixed> $document
     * @param list<string> $displays ids
     * @return list<array{says: string, fields: array<string, string>, covers: int}>
     * @throws Refused
     */
    public function cures(array $document, array $displays): array
    {
        $now = $this->inForce->nowMs();
        $id = is_string($document['id'] ?? null) ? $document['id'] : '';
        $those = [];
        foreach (self::apart($this->kinds($displays)[0]) as $one) {
            $target = $this->targets->display($one);
            $those[] = [$this->programmes->above($id, $target, $this->releases->contentsOn($target)), WallClock::in($target->display()->timezone)];
        }
        $covers = static function (array $document) use ($those, $id, $now): int {
            /** @var array<string, mixed> $document */
            $count = 0;
            foreach ($those as [$above, $clock]) {
                $overlaid = $above($document);
                $found = OverlayChecks::run($overlaid, $overlaid->overlays, $clock, $now)->all;
                $count += count(array_filter($found, static fn (Finding $one): bool => in_array($one->code, ['overlay.covers', 'overlay.crowded'], true)
                    && in_array($id, $one->elements, true)));
            }

            return $count;
        };
        $asItIs = $covers($document);
        $cures = [];
        foreach ($asItIs === 0 ? [] : Overlay::fromArray($document)->lies->elsewhere() as $one) {
            try {
                $left = $covers($one->fields + $document);
            } catch (Refused) {
                continue;
            }
            if ($left < $asItIs) {
                $cures[] = ['says' => $one->says, 'fields' => $one->fields, 'covers' => $left];
            }
        }
        usort($cures, static fn (array $a, array $b): int => $a['covers'] <=> $b['covers']);

        return $cures;
    }

    /**
     * @param list<string> $displays
     * @param \Closure(SurveyedDisplay): array<string, mixed> $document
     * @return array<string, mixed>
     * @throws Refused
     */
    private function told(array $displays, \Closure $document): array
    {
        [$kinds, $zones] = $this->kinds($displays);
        $now = $this->inForce->nowMs();
        $looks = [];
        foreach (self::apart($kinds) as $id) {
            $target = $this->targets->display($id);
            $own = $document($target);
            try {
                $overlay = Overlay::fromArray($own);
                $looks[] = $this->look($this->programmes->above($overlay->id, $target, $this->releases->contentsOn($target))($own), $overlay, $target, $now);
            } catch (Refused $e) {
                throw $e->in(sprintf('On "%s": ', $target->display()->name), $e->path);
            }
        }
        $dark = count($displays) - array_sum(array_column($kinds, 'displays'));

        return ['displays' => count($displays), 'dark' => $dark, 'zones' => $zones, 'looks' => $looks];
    }

    /** @return array<string, mixed> */
    private function look(Overlaid $overlaid, Overlay $overlay, SurveyedDisplay $target, int $nowMs): array
    {
        $display = $target->display();
        $clock = WallClock::in($display->timezone);
        $found = [];
        foreach ([...OverlayChecks::run($overlaid, $overlaid->overlays, $clock, $nowMs)->all, ...$this->words($overlaid, $overlay, $target, $nowMs)] as $finding) {
            if (in_array($overlay->id, $finding->elements, true)) {
                $found[] = $finding;
            }
        }
        $spell = $overlay->when->spells($clock, $nowMs, $nowMs + self::AHEAD_MS)[0] ?? null;
        $at = self::worst($found) ?? max($nowMs, $spell->fromMs ?? $nowMs);

        return [
            'display' => ['id' => $target->id, 'name' => $display->name, 'timezone' => $display->timezone, 'raster' => $display->raster()->toArray(), 'active_mm' => $display->active()->toArray()],
            'at' => (string) Instant::ofMs($at),
            'from' => $spell === null ? null : (string) Instant::ofMs($spell->fromMs),
            'local' => $clock->shown($at),
            'picture' => $this->pictures->ofProgramme($overlaid->programme, self::SPAN_MS, min($at, max($nowMs, $at - self::SPAN_MS + 3_600_000))),
            'findings' => array_map(static fn (Finding $one): array => $one->toArray(), $found),
        ];
    }

    /**
     * @param list<Finding> $found
     * @return ?int when most is covered, Unix ms
     */
    private static function worst(array $found): ?int
    {
        [$most, $at] = [0.0, null];
        foreach ($found as $finding) {
            $share = $finding->measure['share'] ?? null;
            if ($finding->code === 'overlay.covers' && is_numeric($share) && (float) $share > $most && is_string($finding->measure['from'] ?? null)) {
                [$most, $at] = [(float) $share, Instant::parse($finding->measure['from'])->ms];
            }
        }

        return $at;
    }

    /** @return list<Finding> what is wrong with its words, as far as that is a matter of the display */
    private function words(Overlaid $overlaid, Overlay $overlay, SurveyedDisplay $target, int $nowMs): array
    {
        $display = $target->display();
        $nothing = Layout::fromArray(['format' => Layout::FORMAT, 'id' => 'nothing', 'name' => 'Nothing', 'canvas' => $display->raster()->toArray(), 'elements' => []]);

        return (new OverlayWords($overlaid, Overlays::of($overlay), $nothing, $overlaid->composer, $display, WallClock::in($display->timezone)))->findings($nowMs);
    }

    /**
     * Those to which something was handed over, by what they are like.
     *
     * @param list<string> $ids
     * @return array{list<array{id: string, displays: int, area: int, portrait: bool, panels: int}>, list<array{timezone: string, displays: int}>}
     */
    private function kinds(array $ids): array
    {
        [$kinds, $zones] = [[], []];
        foreach ($this->releases->carriers($ids) as $one) {
            ['id' => $id, 'width' => $width, 'height' => $height, 'timezone' => $zone] = $one;
            $alike = "{$one['alike']} {$one['release']}";
            $kinds[$alike] ??= ['id' => $id, 'displays' => 0, 'area' => $width * $height, 'portrait' => $height > $width, 'panels' => $one['panels']];
            $kinds[$alike]['displays']++;
            $zones[$zone] = ($zones[$zone] ?? 0) + 1;
        }
        arsort($zones);

        return [array_values($kinds), array_map(static fn (string $zone, int $count): array => ['timezone' => $zone, 'displays' => $count], array_keys($zones), array_values($zones))];
    }

    /**
     * The smallest, one that stands upright, a wall; else those of which there are most.
     *
     * @param list<array{id: string, displays: int, area: int, portrait: bool, panels: int}> $kinds
     * @return list<string> ids
     */
    private static function apart(array $kinds): array
    {
        usort($kinds, static fn (array $a, array $b): int => $a['area'] <=> $b['area'] ?: $b['displays'] <=> $a['displays']);
        $chosen = array_filter([
            $kinds[0] ?? null,
            array_values(array_filter($kinds, static fn (array $one): bool => $one['portrait']))[0] ?? null,
            array_values(array_filter($kinds, static fn (array $one): bool => $one['panels'] > 1))[0] ?? null,
        ]);
        usort($kinds, static fn (array $a, array $b): int => $b['displays'] <=> $a['displays']);

        return array_slice(array_values(array_unique(array_column([...$chosen, ...$kinds], 'id'))), 0, self::MOST);
    }
}
