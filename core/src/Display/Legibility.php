<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

/**
 * How large letters are to the eye.
 *
 * The angle of a capital is 2 atan(h / 2d). ISO 9241-303: at least 16 arc minutes, 20 to 22 preferred (from memory).
 */
final readonly class Legibility
{
    public const COMFORTABLE_ARCMIN = 20.0;
    public const LIMIT_ARCMIN = 16.0;
    /** A capital of fewer px cannot be drawn so that it is read, on an LED raster. Common practice, no source. */
    public const LEAST_CAP_PX_LED = 7;
    /** The angle under which a CSS px is seen at arm's length, degrees. CSS Values and Units Level 4, 6.2. */
    public const CSS_PX_DEGREES = 0.0213;
    /** Height of a capital over the size of its type, and of a line over that size, for the faces of signs. Common practice, no source. */
    public const CAP_SHARE = 0.7;
    public const LINE_SHARE = 1.2;

    /**
     * @param float $capMm height of a capital
     * @param float $distanceMm of the eye
     */
    public static function arcmin(float $capMm, float $distanceMm): float
    {
        return 2 * rad2deg(atan($capMm / (2 * $distanceMm))) * 60;
    }

    /**
     * How many CSS px something takes up on a screen at arm's length, so that it is seen under the same angle.
     *
     * @param float $mm its length
     * @param float $distanceMm of the eye that it is seen by
     */
    public static function cssPx(float $mm, float $distanceMm): float
    {
        return rad2deg(2 * atan($mm / (2 * $distanceMm))) / self::CSS_PX_DEGREES;
    }

    /** @return float mm, the height of a capital that is seen under this angle */
    public static function capMm(float $arcmin, float $distanceMm): float
    {
        return 2 * $distanceMm * tan(deg2rad($arcmin / 60) / 2);
    }

    /** @return float mm, the distance at which a capital of this height is seen under this angle */
    public static function distanceMm(float $capMm, float $arcmin): float
    {
        return $capMm / (2 * tan(deg2rad($arcmin / 60) / 2));
    }

    /** @return 'comfortable'|'limit'|'unreadable' */
    public static function verdict(float $arcmin): string
    {
        return match (true) {
            $arcmin >= self::COMFORTABLE_ARCMIN => 'comfortable',
            $arcmin >= self::LIMIT_ARCMIN => 'limit',
            default => 'unreadable',
        };
    }

    /**
     * The least height of a capital, in whole px.
     *
     * @param float $mmPerPx of the display
     * @param bool $led whether a capital also needs px of its own
     */
    public static function neededCapPx(float $arcmin, float $mmPerPx, float $distanceMm, bool $led = false): int
    {
        $needed = (int) ceil(round(self::capMm($arcmin, $distanceMm) / $mmPerPx, 9));

        return max($needed, $led ? self::LEAST_CAP_PX_LED : 1);
    }

    /**
     * Capital height that reads comfortably by rule of thumb: 25 mm for every 3 m. Common practice, no source; the angle decides.
     *
     * @return float mm
     */
    public static function ruleOfThumbMm(float $distanceMm): float
    {
        return $distanceMm * 25 / 3000;
    }

    /** @return array<string, mixed> as `bin/upperpane legibility` prints it */
    public static function of(float $mmPerPx, float $capPx, float $distanceMm): array
    {
        $arcmin = self::arcmin($capPx * $mmPerPx, $distanceMm);

        return [
            'arcmin' => round($arcmin, 2),
            'verdict' => self::verdict($arcmin),
            'needed_cap_px' => [
                'comfortable' => self::neededCapPx(self::COMFORTABLE_ARCMIN, $mmPerPx, $distanceMm),
                'limit' => self::neededCapPx(self::LIMIT_ARCMIN, $mmPerPx, $distanceMm),
            ],
            'cap_mm' => round($capPx * $mmPerPx, 2),
            'rule_of_thumb_mm' => round(self::ruleOfThumbMm($distanceMm), 2),
            'comfortable_to_mm' => round(self::distanceMm($capPx * $mmPerPx, self::COMFORTABLE_ARCMIN)),
            'limit_to_mm' => round(self::distanceMm($capPx * $mmPerPx, self::LIMIT_ARCMIN)),
        ];
    }
}
