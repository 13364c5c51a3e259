<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Overlay;

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
