<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\AnsweringTurns;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\TransitionKind;
use UpperPane\Core\Time\Turn;

/**
 * The compiled timing of a programme, as a player reads it (`upper-pane/run-sheet@1`, docs/formats/run-sheet.md).
 *
 * For each zone the segments of one period: `start_ms`, `length_ms` (null without end), what fades in and what is drawn.
 * To know what is due a player takes (t - anchor) mod period and looks the segment up; nothing else is computed there.
 */
final class RunSheet
{
    public const FORMAT = 'upper-pane/run-sheet@1';

    /** No item that tells data runs for longer when a sheet begins. */
    private const BEFORE_MS = 3_600_000;

    /** What has always stood goes on from so long before: since then nobody has fetched a sheet of newer data. */
    private const STOOD_MS = 10_000;

    private int $segments = 0;

    /**
     * What a programme plays; where it takes turns, they are written out for [from, to), and from then on the standby of its schedule plays.
     *
     * @param int $fromMs UTC ms
     * @return array<string, mixed>
     * @throws Refused where there is too much to be written, or a map cannot be worked out
     */
    public static function of(Programme $programme, ?Surroundings $surroundings = null, int $fromMs = 0, int $toMs = 0): array
    {
        return ['format' => self::FORMAT] + self::ofTracks($programme->tracks(), $programme, $surroundings, $fromMs, $toMs);
    }

    /**
     * Some of the tracks of a programme alone, on its canvas.
     *
     * @param list<Track> $tracks lowest first
     * @param int $fromMs UTC ms
     * @param array{at_ms: int, begun: array<string, array{int, int}>}|array{} $carried what stands at an instant (begunAt), so that it goes on
     * @return array{canvas: array{width: int, height: int}, background: string, anchor_ms: int, layers: list<array<string, mixed>>, triggers?: list<array<string, mixed>>}
     * @throws Refused where there is too much to be written, or a map cannot be worked out
     */
    public static function ofTracks(array $tracks, Programme $programme, ?Surroundings $surroundings = null, int $fromMs = 0, int $toMs = 0, array $carried = []): array
    {
        $surroundings = ($surroundings ?? new Surroundings())->in($programme->clock()->timezone);
        $sheet = new self($fromMs, $toMs, $carried['begun'] ?? [], $carried['at_ms'] ?? 0);

        $isBase = array_filter($tracks, static fn (Track $track): bool => $track->id() === $programme->base->id()) !== [];
        $maps = $isBase ? $programme->base->reactions?->compiled($programme->clock(), $fromMs, $toMs) ?? [] : [];

        return [
            'canvas' => $programme->canvas()->toArray(),
            'background' => $programme->background()->hex,
            'anchor_ms' => $programme->anchorMs(),
        ] + ($maps === [] ? [] : ['triggers' => $maps]) + [
            'layers' => array_merge(...array_map(
                static fn (Track $track): array => $sheet->layers($track->layers($surroundings), [[$fromMs, max($toMs, $fromMs + 1), $programme->anchorMs()]], $track->id()),
                $tracks,
            )),
        ];
    }

    /**
     * What stands at an instant of all that takes turns, so that it goes on in a sheet that is made of newer data.
     *
     * @param array<mixed> $layers of a run sheet
     * @param ?int $anchorMs that these count from, Unix ms; null where that is not known, or not one instant
     * @return array<string, array{int, int}> from when it stands, and what it counts from, by id; Unix ms
     */
    public static function begunAt(array $layers, int $ms, ?int $anchorMs): array
    {
        $carried = [];
        foreach ($layers as $layer) {
            if (!is_array($layer) || !is_string($layer['id'] ?? null)) {
                continue;
            }
            if (($layer['through'] ?? false) === true) {
                foreach (is_array($layer['scenes'] ?? null) ? $layer['scenes'] : [] as $scene) {
                    $carried += is_array($scene) ? self::begunAt($scene, $ms, $anchorMs) : [];
                }
                continue;
            }
            $turns = is_array($layer['turns'] ?? null) ? $layer['turns'] : null;
            $stands = $turns !== null || $anchorMs === null || $ms - self::STOOD_MS < $anchorMs ? null : [$ms - self::STOOD_MS, $anchorMs];
            $for = null;
            foreach ($turns ?? [] as $turn) {
                if (is_array($turn) && is_int($turn['from_ms'] ?? null) && is_int($turn['anchor_ms'] ?? null) && $turn['from_ms'] <= $ms) {
                    // What stands before all turns stands since it began.
                    $stands = [max($turn['from_ms'], $turn['anchor_ms']), $turn['anchor_ms']];
                    $for = self::only($layer['loops'] ?? null, $turn['loop'] ?? null);
                }
            }
            $carried += $stands === null ? [] : [$layer['id'] => $stands];
            foreach (is_array($layer['scenes'] ?? null) ? $layer['scenes'] : [] as $number => $scene) {
                $carried += is_array($scene) ? self::begunAt($scene, $ms, $number === $for && $stands !== null ? $stands[1] : null) : [];
            }
        }

        return $carried;
    }

    /**
     * The pictures and films that a sheet shows, each once, also those that rows of data mean.
     *
     * @param array<mixed> $layers of a run sheet
     * @return array<string, Media> those that are kept, by id
     */
    public static function mediaIn(array $layers): array
    {
        $found = [];
        foreach ($layers as $layer) {
            $part = is_array($layer) ? $layer['part'] ?? null : null;
            if (is_array($part) && is_array($part['media'] ?? null) && is_string($part['media']['id'] ?? null)) {
                $found[$part['media']['id']] ??= Media::fromNode(Node::root($part['media']));
            }
            foreach (is_array($layer) && is_array($layer['scenes'] ?? null) ? $layer['scenes'] : [] as $scene) {
                $found += is_array($scene) ? self::mediaIn($scene) : [];
            }
        }

        return $found;
    }

    /** The scene of a loop that has no other, and no end: what is in it counts from when its turn begins. */
    private static function only(mixed $loops, mixed $number): ?int
    {
        $segments = is_array($loops) && is_int($number) && is_array($loops[$number] ?? null) ? $loops[$number]['segments'] ?? null : null;
        $first = is_array($segments) && count($segments) === 1 ? $segments[0] : null;

        return is_array($first) && ($first['length_ms'] ?? null) === null && is_int($first['scene'] ?? null) ? $first['scene'] : null;
    }

    /** @param array<string, array{int, int}> $carried */
    private function __construct(private readonly int $fromMs, private readonly int $toMs, private readonly array $carried, private readonly int $carriedMs)
    {
    }

    /**
     * @param list<Part|ZonePlan> $layers
     * @param list<array{int, int, int}> $stretches when they are seen: from and to, and what they count from; Unix ms
     * @param string $way to them: the track, and of each zone and scene on the way the id
     * @return list<array<string, mixed>>
     */
    private function layers(array $layers, array $stretches, string $way): array
    {
        $written = [];
        $times = [];
        foreach ($layers as $layer) {
            $name = ($way === '' ? '' : "$way/") . substr((string) strrchr("/$layer->element", '/'), 1);
            $times[$name] = ($times[$name] ?? 0) + 1;
            // An element may be drawn in several parts: each of them is a thing of its own.
            $id = $name . ($times[$name] > 1 ? "~$times[$name]" : '');
            if ($layer instanceof Part) {
                $written[] = ['part' => ['id' => $id] + $layer->toArray() + ($layer->changing?->compiled() ?? [])];
                continue;
            }
            if ($layer->turns instanceof AnsweringTurns) {
                $written[] = $this->answering($layer, $layer->turns, $stretches, $id);
                continue;
            }
            $turns = $layer->steady !== null ? self::stoodOn($layer, $layer->steady, $stretches, $this->carried[$id] ?? null) : $this->turnsOf($layer, $stretches, $this->carried[$id] ?? null);
            $isTurning = $layer->steady === null || $turns !== [];
            $seen = array_fill_keys($layer->anchored, []);
            foreach ($turns as $turn) {
                $scene = $turn->loop->items[0] ?? -1;
                if (isset($seen[$scene])) {
                    $seen[$scene][] = [$turn->fromMs, $turn->toMs, $turn->anchorMs];
                }
            }
            [$scenes, $named] = [[], []];
            $numbers = $layer->scenes->among([$layer->loop, ...array_map(static fn (Turn $turn): Loop => $turn->loop, $turns)]);
            foreach ($numbers as $index) {
                $scene = $layer->scenes->scene($index);
                $named[$scene->name] = ($named[$scene->name] ?? 0) + 1;
                $inside = "$id:$scene->name" . ($named[$scene->name] > 1 ? "~{$named[$scene->name]}" : '');
                // The places of one thing have the same ids: it is never at two of them.
                $scenes[] = $this->layers($scene->layers(), $seen[$index] ?? $stretches, $layer->through ? $way : $inside);
            }
            $places = array_flip($numbers);
            $written[] = ['id' => $id, 'zone' => $layer->element, 'rect' => $layer->box->toArray()]
                + $this->loop($layer->loop, $layer, $places)
                + ['scenes' => $scenes]
                + ($layer->walks && $layer->steady === null ? ['walks' => true] : [])
                + ($layer->through ? ['through' => true] : [])
                + ($layer->alone ? ['alone' => true] : [])
                + ($isTurning ? $this->turns($layer, $turns, $places) : []);
        }

        return $written;
    }

    /**
     * What a player decides by itself: each of its scenes is a loop, and that at rest is the one which is due.
     *
     * @param list<array{int, int, int}> $stretches
     * @return array<string, mixed>
     */
    private function answering(ZonePlan $zone, AnsweringTurns $turns, array $stretches, string $id): array
    {
        $numbers = array_keys($turns->answers);
        $scenes = [];
        foreach ($numbers as $number) {
            $scene = $zone->scenes->scene($number);
            ['state' => $state, 'row' => $row] = $turns->answers[$number];
            $scenes[] = $this->layers($scene->layers(), $stretches, "$id:$state" . ($row === null ? '' : "~$row"));
        }
        $places = array_flip($numbers);

        return ['id' => $id, 'zone' => $zone->element, 'rect' => $zone->box->toArray()] + $this->loop($turns->loop(), $zone, $places) + [
            'scenes' => $scenes,
            'loops' => array_map(fn (int $number): array => $this->loop(Loop::endless($number), $zone, $places), $numbers),
            'answers' => ['map' => $turns->map, 'scenes' => $turns->answers] + ($turns->place === null ? [] : ['place' => $turns->place->toArray()]),
        ];
    }

    /**
     * What is the same for ever by now, and goes on from what it counted from when it was not; none where that makes no difference.
     *
     * @param list<array{int, int, int}> $stretches
     * @param ?array{int, int} $carried
     * @return list<Turn>
     */
    private static function stoodOn(ZonePlan $zone, Loop $loop, array $stretches, ?array $carried): array
    {
        if ($carried === null || $zone->begins || $loop->items === []) {
            return [];
        }
        [$turns, $differs] = [[], false];
        foreach ($stretches as [$from, $to, $anchor]) {
            $goesOn = $anchor <= $carried[0] && $carried[0] < $to && $loop->position($carried[0] - $carried[1]) !== $loop->position($carried[0] - $anchor);
            $turns[] = new Turn($from, $to, $goesOn ? $carried[1] : $anchor, $loop);
            $differs = $differs || $goesOn;
        }

        return $differs ? $turns : [];
    }

    /**
     * The turns of a zone while it is seen; what is booked first, then what plays by itself.
     *
     * @param list<array{int, int, int}> $stretches
     * @param ?array{int, int} $carried from when what stands by now does so, and what it counts from, Unix ms, whatever it went through before
     * @return list<Turn>
     */
    private function turnsOf(ZonePlan $zone, array $stretches, ?array $carried): array
    {
        if ($zone->begins) {
            // What tells data goes on from when its item began, which may be before the span.
            return $zone->turns->between($this->fromMs - ($zone->walks ? self::BEFORE_MS : 0), max($this->toMs, $this->fromMs + 1));
        }
        [$booked, $mine] = [[], []];
        foreach ($stretches as [$from, $to, $anchor]) {
            $own = $zone->turns->anchored($anchor);
            // Where it would go on from there by itself, nothing of what it went through is forgotten: so the same data make the same sheet.
            if ($carried !== null && $anchor <= $carried[0] && $carried[0] < $to && $own->at(max($carried[0], $this->carriedMs))->anchorMs !== $carried[1]) {
                [$own, $from] = [$own->resumed(...$carried), $carried[0]];
            }
            foreach ($own->between($from, $to) as $turn) {
                if ($turn->play === null) {
                    $mine[] = $turn;
                } else {
                    $booked[] = $turn;
                }
            }
        }
        $this->segments += count($booked) + count($mine);
        Budget::ofSegments($this->segments, '/to');

        return [...$booked, ...$mine];
    }

    /**
     * @param array<int, int> $places of the scenes in the sheet, by their numbers
     * @return array{period_ms: ?int, segments: list<array<string, mixed>>}
     */
    private function loop(Loop $loop, ZonePlan $zone, array $places): array
    {
        $segments = [];
        $last = count($loop->items) - 1;
        foreach ($loop->items as $slot => $item) {
            $transition = $zone->scenes->transition($item);
            $segments[] = [
                'start_ms' => $loop->starts[$slot],
                'length_ms' => $loop->periodMs === null && $slot === $last ? null : $loop->lengths[$slot],
                'fade_ms' => $transition->kind === TransitionKind::Fade ? $transition->ms : 0,
                'scene' => $places[$item],
            ] + (in_array($transition->kind, [TransitionKind::Push, TransitionKind::Wipe], true) ? ['moves' => $transition->toArray()] : []);
        }

        return ['period_ms' => $loop->periodMs, 'segments' => $segments];
    }

    /**
     * Each loop once, and from when which of them is gone through.
     *
     * @param list<Turn> $all
     * @param array<int, int> $places of the scenes in the sheet, by their numbers
     * @return array{loops: list<array<string, mixed>>, turns: list<array{from_ms: int, anchor_ms: ?int, loop: int}>}
     */
    private function turns(ZonePlan $zone, array $all, array $places): array
    {
        [$loops, $keys, $turns, $known] = [[], [], [], []];
        $add = function (int $from, ?int $anchor, Loop $loop) use (&$loops, &$keys, &$turns, &$known, $zone, $places): void {
            // Most turns go through the very same value; others through one that is alike.
            if (!isset($known[spl_object_id($loop)])) {
                $key = serialize([$loop->items, $loop->lengths]);
                if (!isset($keys[$key])) {
                    $keys[$key] = count($loops);
                    $loops[] = $this->loop($loop, $zone, $places);
                }
                $known[spl_object_id($loop)] = [$keys[$key], $loop];
            }
            $turns[] = ['from_ms' => $from, 'anchor_ms' => $anchor, 'loop' => $known[spl_object_id($loop)][0]];
        };
        foreach ($all as $turn) {
            $add($turn->fromMs, $zone->begins ? null : $turn->anchorMs, $turn->loop);
        }
        if ($zone->begins) {
            return ['loops' => $loops, 'turns' => $turns];
        }
        if ($zone->behind !== null) {
            $add($this->toMs, 0, Loop::endless($zone->behind));
        }
        usort($turns, static fn (array $a, array $b): int => $a['from_ms'] <=> $b['from_ms']);
        if ($turns === []) {
            $add($this->fromMs, $this->fromMs, $zone->loop);
        }

        return ['loops' => $loops, 'turns' => $turns];
    }
}
