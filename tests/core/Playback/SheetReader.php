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
        return self::layers($sheet['layers'], $atMs - $sheet['anchor_ms'], null, 1.0);
    }

    /**
     * @param mixed $layers as they stand in the JSON
     * @return list<array<string, mixed>>
     */
    private static function layers(mixed $layers, int $since, ?int $offset, float $opacity): array
    {
        $things = [];
        foreach ($layers as $layer) {
            if (isset($layer['part'])) {
                $things[] = $layer['part'] + ($offset === null ? [] : ['offset_ms' => $offset]) + ($opacity < 1 ? ['opacity' => round($opacity, 4)] : []);
                continue;
            }
            $segments = $layer['segments'];
            if ($segments === []) {
                continue;
            }
            $period = $layer['period_ms'];
            $position = $period === null ? max(0, $since) : (($since % $period) + $period) % $period;
            $due = count($segments) - 1;
            while ($segments[$due]['start_ms'] > $position) {
                $due--;
            }
            $into = $position - $segments[$due]['start_ms'];
            $fade = $segments[$due]['fade_ms'];
            $own = $opacity;
            if ($into < $fade && ($due > 0 || ($period !== null && $since >= $period))) {
                $before = $segments[$due > 0 ? $due - 1 : count($segments) - 1];
                array_push($things, ...self::layers($layer['scenes'][$before['scene']], $before['length_ms'], $before['length_ms'], $opacity));
                $own = $opacity * $into / $fade;
            }
            array_push($things, ...self::layers($layer['scenes'][$segments[$due]['scene']], $into, $into, $own));
        }

        return $things;
    }
}
