<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Overlay;

use Random\Randomizer;
use UpperPane\Tests\Core\Typewriter;

/** Overlays for tests, one of each kind; what is not asked for is as short as can be. */
final class OverlayDocuments
{
    /** @return array<string, mixed> of 400 x 120 px, which stands always */
    public static function mark(string $corner = 'bottom-right', float $size = 0.1, float $inset = 0.02, mixed ...$more): array
    {
        return self::named($more) + ['id' => 'mark', 'media' => ['name' => 'logo.svg', 'width' => 400, 'height' => 120], 'corner' => $corner, 'size' => $size, 'inset' => $inset] + self::head('mark');
    }

    /** @return array<string, mixed> */
    public static function strip(string $edge = 'bottom', float $thickness = 0.1, mixed ...$more): array
    {
        $strip = ['id' => 'strip', 'edge' => $edge, 'thickness' => $thickness, 'text' => 'Late boats', 'style' => self::style(), 'ground' => '#000000', 'speed_px_s' => 120];

        return self::named($more) + $strip + self::head('ticker');
    }

    /** @return array<string, mixed> */
    public static function notice(string $place = 'top', float $width = 0.5, mixed ...$more): array
    {
        return self::named($more) + ['id' => 'notice', 'text' => 'The lift is out of order', 'style' => self::style(), 'place' => $place, 'width' => $width] + self::head('notice');
    }

    /** @return array<string, mixed> */
    public static function window(mixed ...$more): array
    {
        return self::named($more) + ['id' => 'window', 'plays' => ['layout' => 'sign']] + self::head('window');
    }

    /** @return array<string, mixed> */
    public static function takeover(mixed ...$more): array
    {
        return self::named($more) + ['id' => 'takeover', 'plays' => ['layout' => 'alarm'], 'reason' => 'Drill'] + self::head('takeover');
    }

    /**
     * Some of each kind: always, at times, over nights on which clocks change, after items, squeezing and covering.
     *
     * @return list<array<string, mixed>>
     */
    public static function random(Randomizer $random): array
    {
        $pick = static fn (mixed ...$of): mixed => array_values($of)[$random->getInt(0, count($of) - 1)];
        $time = static fn (int $day): string => sprintf('2026-10-%02dT%02d:%02d:00', $day, $random->getInt(0, 23), $random->getInt(0, 59));
        $booked = static function () use ($random, $time, $pick): array {
            $start = $time($random->getInt(23, 25));
            $end = (new \DateTimeImmutable("$start UTC"))->modify('+' . $random->getInt(1, 400) . ' minutes')->format('Y-m-d\TH:i:s');
            $zone = $pick('', 'Z');

            return ['start' => $start . $zone, 'end' => $end . $zone] + $pick([], ['rrule' => 'FREQ=DAILY;COUNT=3'], ['rrule' => 'FREQ=HOURLY;INTERVAL=5']);
        };
        $when = static fn (bool $mayFollow): array => ['when' => match ($random->getInt(0, $mayFollow ? 4 : 2)) {
            0 => 'always',
            1 => ['bookings' => [$booked()]],
            2 => ['bookings' => [$booked(), $booked()], 'until' => $time(26)],
            3 => ['after' => ['every' => $random->getInt(1, 4)], 'lasts_ms' => $random->getInt(500, 30_000)],
            default => ['after' => ['every' => $random->getInt(1, 3), 'zone' => 'z0'], 'lasts_ms' => $random->getInt(500, 9000), 'bookings' => [$booked(), $booked()]],
        }];
        $all = [];
        for ($n = 0, $count = $random->getInt(1, 6); $n < $count; $n++) {
            $all[] = match ($pick('mark', 'strip', 'strip', 'notice', 'notice', 'window', 'takeover')) {
                'mark' => $when(false) + self::mark($pick('top-left', 'bottom-right'), 0.1, 0.03, opacity: $pick(1, 0.4)),
                'strip' => $when(false) + self::strip($pick('top', 'bottom', 'left', 'right'), $random->getInt(2, 9) / 40, room: $pick('squeeze', 'cover'), ground: $pick('#00000080', null)),
                'notice' => $when(false) + $pick([], ['moves' => 'to-right', 'speed_px_s' => 95])
                    + self::notice($pick('middle-left', 'bottom', 'top-right'), 0.4, plate: $pick('#fffdf8', null), padding: 0.01),
                'window' => $when(true) + self::window(level: $random->getInt(0, 1), volume: $pick(0, 80), programme_volume: $pick(100, 30)),
                default => $when(true) + self::takeover(fit: $pick('contain', 'cover')),
            };
            $all[$n] = ['id' => "o$n"] + $all[$n];
        }

        return $all;
    }

    /** @return array<string, mixed> */
    private static function style(): array
    {
        return ['family' => Typewriter::FAMILY, 'size_px' => 40, 'color' => '#ffffff'];
    }

    /** @return array<string, mixed> */
    private static function head(string $kind): array
    {
        return ['format' => 'upper-pane/overlay@1', 'name' => ucfirst($kind), 'kind' => $kind, 'created' => '2026-01-01T00:00:00Z', 'when' => 'always'];
    }

    /**
     * @param array<mixed> $more
     * @return array<string, mixed>
     */
    private static function named(array $more): array
    {
        $named = [];
        foreach ($more as $name => $value) {
            $named[(string) $name] = $value;
        }

        return $named;
    }
}
