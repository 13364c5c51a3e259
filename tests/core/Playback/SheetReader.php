<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

/** Reads a run sheet as a player does, with nothing of the core: what is due at an instant. */
final class SheetReader
{
    /**
     * @param array<string, mixed> $sheet
     * @return list<array<string, mixed>>
     */
    public static function things(array $sheet, int $atMs): array
    {
        return self::layers($sheet['layers'], $atMs, $atMs - $sheet['anchor_ms'], null, 1.0);
    }

    /**
     * @param mixed $layers as they stand in the JSON
     * @return list<array<string, mixed>>
     */
    private static function layers(mixed $layers, int $at, int $since, ?int $offset, float $opacity): array
    {
        $things = [];
        foreach ($layers as $layer) {
            if (isset($layer['part'])) {
                $things[] = array_diff_key(self::loud($layer['part'], $at), ['id' => 1]) + ($offset === null ? [] : ['offset_ms' => $offset]) + ($opacity < 1 ? ['opacity' => round($opacity, 4)] : []);
                continue;
            }
            [$loop, $began, $turned] = self::loop($layer, $at, $since);
            $segments = $loop['segments'];
            if ($segments === []) {
                continue;
            }
            $period = $loop['period_ms'];
            $through = $layer['through'] ?? false;
            $position = $period === null ? max(0, $began) : (($began % $period) + $period) % $period;
            $due = count($segments) - 1;
            while ($segments[$due]['start_ms'] > $position) {
                $due--;
            }
            $into = $position - $segments[$due]['start_ms'];
            if ($through) {
                $own = self::layers($layer['scenes'][$segments[$due]['scene']], $at, $since, $offset, $opacity);
                $things = ($layer['alone'] ?? false) && $own !== [] ? $own : [...$things, ...$own];
                continue;
            }
            $fade = $segments[$due]['fade_ms'];
            $moves = $segments[$due]['moves'] ?? null;
            $own = $opacity;
            $leaving = [];
            $changing = $into < max($fade, $moves['ms'] ?? 0) && $into < $turned && ($due > 0 || ($period !== null && $began >= $period));
            if ($changing) {
                $before = $segments[$due > 0 ? $due - 1 : count($segments) - 1];
                $leaving = self::layers($layer['scenes'][$before['scene']], $at, $before['length_ms'], $before['length_ms'], $opacity);
                $own = $moves === null ? $opacity * $into / $fade : $opacity;
            }
            $coming = self::layers($layer['scenes'][$segments[$due]['scene']], $at, $into, $into, $own);
            if ($changing && $moves !== null) {
                $gone = $into / $moves['ms'];
                $zone = $layer['rect'];
                [$x, $y] = ['left' => [-1, 0], 'right' => [1, 0], 'top' => [0, -1], 'bottom' => [0, 1]][$moves['from']];
                if ($moves['kind'] === 'push') {
                    $leaving = self::moved($leaving, -$x * $zone['width'] * $gone, -$y * $zone['height'] * $gone, $zone);
                    $coming = self::moved($coming, $x * $zone['width'] * (1 - $gone), $y * $zone['height'] * (1 - $gone), $zone);
                } else {
                    $coming = self::moved($coming, 0, 0, [
                        'x' => $x > 0 ? $zone['x'] + $zone['width'] * (1 - $gone) : $zone['x'],
                        'y' => $y > 0 ? $zone['y'] + $zone['height'] * (1 - $gone) : $zone['y'],
                        'width' => $x === 0 ? $zone['width'] : $zone['width'] * $gone,
                        'height' => $y === 0 ? $zone['height'] : $zone['height'] * $gone,
                    ]);
                }
            }
            array_push($things, ...$leaving, ...$coming);
        }

        return $things;
    }

    /**
     * @param mixed $part
     * @return array<string, mixed> as loud as it is at that instant
     */
    private static function loud(mixed $part, int $at): array
    {
        if (!isset($part['levels'])) {
            return $part;
        }
        $offset = $part['offsets'][0][1];
        foreach ($part['offsets'] as [$from, $ms]) {
            $offset = $from <= $at ? $ms : $offset;
        }
        $s = intdiv($at + $offset, 1000) % 86_400;
        foreach (array_reverse($part['levels']) as [$from, $to, $volume]) {
            $part['volume'] = ($from < $to ? $s >= $from && $s < $to : $s >= $from || $s < $to) ? $volume : $part['volume'];
        }

        return array_diff_key($part, ['levels' => 1, 'offsets' => 1]);
    }

    /**
     * @param mixed $layer a zone
     * @return array{mixed, int, int} its loop at an instant, ms since that began, and ms since it is this one
     */
    private static function loop(mixed $layer, int $at, int $since): array
    {
        if (!isset($layer['turns'])) {
            return [$layer, $since, PHP_INT_MAX];
        }
        $nested = $layer['turns'][0]['anchor_ms'] === null;
        if ($nested && isset($layer['walks'])) {
            return self::walked($layer, $at, $at - $since);
        }
        $due = $layer['turns'][0];
        foreach ($layer['turns'] as $turn) {
            $due = $turn['from_ms'] <= ($nested ? $at - $since : $at) ? $turn : $due;
        }

        return [$layer['loops'][$due['loop']], $nested ? $since : $at - $due['anchor_ms'], $nested ? $since : $at - $due['from_ms']];
    }

    private static function leftOf(mixed $loop, int $since): int
    {
        $position = $since % $loop['period_ms'];
        foreach ($loop['segments'] as $segment) {
            if ($segment['start_ms'] < $position && $position < $segment['start_ms'] + $segment['length_ms']) {
                return $segment['start_ms'] + $segment['length_ms'] - $position;
            }
        }

        return 0;
    }

    /**
     * Step by step from the instant at which its item began, as docs/formats/run-sheet.md says.
     *
     * @param mixed $layer a zone
     * @return array{mixed, int, int}
     */
    private static function walked(mixed $layer, int $at, int $begun): array
    {
        $turnAt = static fn (int $ms): int => (int) array_key_last(array_filter($layer['turns'], static fn (array $turn): bool => $turn['from_ms'] <= $ms));
        [$anchor, $turn] = [$begun, $turnAt($begun)];
        while (true) {
            $loop = $layer['loops'][$layer['turns'][$turn]['loop']];
            $ends = PHP_INT_MAX;
            foreach (array_slice($layer['turns'], $turn + 1) as $next) {
                if ($next['from_ms'] >= $ends || $next['loop'] === $layer['turns'][$turn]['loop']) {
                    continue;
                }
                $isAtOnce = $loop['segments'] === [] || $loop['period_ms'] === null || $layer['loops'][$next['loop']]['period_ms'] === null;
                $ends = $isAtOnce ? $next['from_ms'] : min($ends, $next['from_ms'] + self::leftOf($loop, $next['from_ms'] - $anchor));
            }
            if ($at < $ends) {
                return [$loop, $at - $anchor, $at - $anchor];
            }
            $then = $turnAt($ends);
            $anchor = $layer['turns'][$then]['loop'] === $layer['turns'][$turn]['loop'] ? $anchor : $ends;
            $turn = $then;
        }
    }

    /**
     * @param list<array<string, mixed>> $things
     * @param array<string, float|int> $clip
     * @return list<array<string, mixed>>
     */
    private static function moved(array $things, float $dx, float $dy, array $clip): array
    {
        return array_map(static function (array $thing) use ($dx, $dy, $clip): array {
            foreach (['rect', 'drawn'] as $box) {
                $thing[$box]['x'] += $dx;
                $thing[$box]['y'] += $dy;
            }
            $rect = $thing['rect'];
            [$x, $y] = [max($rect['x'], $clip['x']), max($rect['y'], $clip['y'])];
            $thing['rect'] = [
                'x' => $x,
                'y' => $y,
                'width' => max(0, min($rect['x'] + $rect['width'], $clip['x'] + $clip['width']) - $x),
                'height' => max(0, min($rect['y'] + $rect['height'], $clip['y'] + $clip['height']) - $y),
            ];

            return $thing;
        }, $things);
    }
}
