<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core;

use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * Documents for tests: small, named for what they are, and random ones from a seed.
 *
 * @phpstan-type Doc array<string, mixed>
 */
final class Make
{
    /**
     * @param mixed ...$more further fields by name
     * @return Doc
     */
    public static function picture(string $id = 'i1', int $width = 1600, int $height = 900, int $durationMs = 10_000, mixed ...$more): array
    {
        return ['id' => $id, 'media' => ['name' => "$id.png", 'width' => $width, 'height' => $height], 'duration_ms' => $durationMs] + self::named($more);
    }

    /** @return Doc */
    public static function film(string $id = 'f1', int $lengthMs = 15_000, int $width = 1920, int $height = 1080, mixed ...$more): array
    {
        return ['id' => $id, 'media' => ['name' => "$id.mp4", 'width' => $width, 'height' => $height, 'length_ms' => $lengthMs]] + self::named($more);
    }

    /**
     * @param ?list<Doc> $items
     * @return Doc
     */
    public static function zone(string $id, int $x, int $y, int $width, int $height, ?array $items = null, mixed ...$more): array
    {
        return [
            'id' => $id, 'kind' => 'zone', 'rect' => ['x' => $x, 'y' => $y, 'width' => $width, 'height' => $height],
            'playlist' => ['items' => $items ?? [self::picture('i1', $width, $height)]],
        ] + self::named($more);
    }

    /**
     * @param list<Doc> $elements
     * @return Doc
     */
    public static function layout(array $elements, int $width = 1920, int $height = 1080, string $id = 'test'): array
    {
        return ['format' => 'upper-pane/layout@1', 'id' => $id, 'name' => "Layout $id", 'canvas' => ['width' => $width, 'height' => $height], 'elements' => $elements];
    }

    /** @return Doc main and side over a footer, as the trade divides a landscape screen */
    public static function harbour(int $footY = 864, int $footHeight = 216): array
    {
        return self::layout([
            self::zone('main', 0, 0, 1344, 864),
            self::zone('side', 1344, 0, 576, 864),
            self::zone('foot', 0, $footY, 1920, $footHeight),
        ]);
    }

    /** @return Doc */
    public static function display(int $width = 1920, int $height = 1080, int $rotation = 0): array
    {
        return [
            'format' => 'upper-pane/display@1', 'id' => 'd', 'name' => 'Check-in 1', 'timezone' => 'Europe/Lisbon',
            'viewing' => ['nearest_mm' => 2000, 'farthest_mm' => 10000],
            'panels' => [[
                'id' => 'p1', 'column' => 0, 'row' => 0, 'native' => ['width' => $width, 'height' => $height],
                'active_mm' => ['width' => 941.2, 'height' => 529.4], 'bezel_mm' => ['left' => 10, 'top' => 10, 'right' => 10, 'bottom' => 10],
                'rotation' => $rotation,
            ]],
        ];
    }

    /**
     * @param array<mixed> $more
     * @return Doc
     */
    private static function named(array $more): array
    {
        return array_filter($more, is_string(...), ARRAY_FILTER_USE_KEY);
    }

    public static function random(int $seed): Randomizer
    {
        return new Randomizer(new Mt19937($seed));
    }

    /** @return Doc a layout of some zones with fades, films, endless items, followers and nested layouts */
    public static function randomLayout(Randomizer $random, int $depth = 0): array
    {
        $elements = [];
        $count = $random->getInt(1, 4);
        for ($z = 0; $z < $count; $z++) {
            $items = [];
            for ($i = 0, $n = $random->getInt(0, 4); $i < $n; $i++) {
                $items[] = self::randomItem("i$i", $random, $depth);
            }
            $follows = $z > 0 && $depth === 0 && $random->getInt(0, 3) === 0 ? ['follows' => 'z0'] : [];
            $elements[] = self::zone("z$z", $random->getInt(-50, 900), $random->getInt(-50, 500), $random->getInt(1, 900), $random->getInt(1, 500), $items, ...$follows);
        }
        $elements[] = ['id' => 'words', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 10, 'height' => 10], 'text' => 'x', 'style' => ['size_px' => 20]];

        return self::layout($elements, 1280, 720, "random$depth");
    }

    /** @return Doc */
    private static function randomItem(string $id, Randomizer $random, int $depth): array
    {
        $fade = ['transition' => ['kind' => 'fade', 'ms' => $random->getInt(0, 100)]];

        return match ($random->getInt(0, $depth < 2 ? 7 : 5)) {
            0, 1, 2 => self::picture($id, 100, 80, $random->getInt(100, 4000), ...$fade),
            3 => self::film($id, $random->getInt(100, 4000), 64, 64, ...$fade),
            4 => self::picture($id, 100, 80, $random->getInt(100, 4000), enabled: false),
            5 => $random->getInt(0, 9) === 0 ? ['lasts' => 'endless'] + self::film($id) : self::film($id, 900, 64, 64, duration_ms: 500),
            default => ['id' => $id, 'layout' => self::randomLayout($random, $depth + 1), 'duration_ms' => $random->getInt(100, 9000), 'fit' => 'cover'] + $fade,
        };
    }
}
