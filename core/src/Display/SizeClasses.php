<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

/** Sizes to begin a survey with: classes by diagonal or pitch, no makes and models. What the label says goes before them. */
final readonly class SizeClasses
{
    private const MM_PER_INCH = 25.4;
    /** Inches of 16:9 screens; 4K from 65 up. Common practice, no source. */
    private const WIDE = [32, 43, 49, 55, 65, 75, 86, 98];
    /** Inches, px: bars as they are cut from wide screens, and square ones. Common practice, no source. */
    private const OTHER = [
        ['bar', 19, 1920, 360], ['bar', 28, 1920, 360], ['bar', 37, 1920, 540], ['bar', 86, 3840, 600], ['square', 22, 1920, 1920], ['square', 33, 1920, 1920],
    ];
    /** Pitch in mm and side of the square cabinet in mm, so that a cabinet has whole px. Common practice, no source. */
    private const LED = [
        [1.2, 480], [1.5, 480], [2.0, 480], [2.5, 480], [3.0, 480], [4.0, 480], [5.0, 480], [6.0, 480], [8.0, 960], [10.0, 960], [16.0, 960], [20.0, 960],
    ];

    /** @return list<array{id: string, name: string, technology: string, native: array{width: int, height: int}, active_mm: array{width: float, height: float}, bezel_mm: float}> */
    public static function all(): array
    {
        $classes = [];
        foreach (self::WIDE as $inches) {
            [$width, $height] = $inches >= 65 ? [3840, 2160] : [1920, 1080];
            $classes[] = self::screen("wide-$inches", "$inches inch, 16:9", $inches, $width, $height);
        }
        foreach (self::OTHER as [$kind, $inches, $width, $height]) {
            $classes[] = self::screen("$kind-$inches", $kind === 'bar' ? "$inches inch bar, $width x $height" : "$inches inch, square", $inches, $width, $height);
        }
        foreach (self::LED as [$pitch, $side]) {
            $px = (int) round($side / $pitch);
            $classes[] = [
                'id' => "led-$pitch", 'name' => "LED $pitch mm, cabinet $side x $side mm", 'technology' => 'led',
                'native' => ['width' => $px, 'height' => $px], 'active_mm' => ['width' => (float) $side, 'height' => (float) $side], 'bezel_mm' => 0.0,
            ];
        }

        return $classes;
    }

    /** @return array{id: string, name: string, technology: string, native: array{width: int, height: int}, active_mm: array{width: float, height: float}, bezel_mm: float} */
    private static function screen(string $id, string $name, int $inches, int $width, int $height): array
    {
        $mm = $inches * self::MM_PER_INCH / hypot($width, $height);

        return [
            'id' => $id, 'name' => $name, 'technology' => 'lcd', 'native' => ['width' => $width, 'height' => $height],
            'active_mm' => ['width' => round($width * $mm, 1), 'height' => round($height * $mm, 1)], 'bezel_mm' => 10.0,
        ];
    }
}
