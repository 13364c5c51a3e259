<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

/** Shares as they are told, everywhere alike: whole percent, a half upwards; under 1 %, to the first figure that is not 0. */
final readonly class Percent
{
    /** @param float $share 0.125 is 13 % */
    public static function of(float $share): string
    {
        $percent = 100 * $share;
        $digits = $percent === 0.0 || abs($percent) >= 0.95 ? 0 : min(4, (int) ceil(-log10(abs($percent))));

        // What is a half but for the last bit of a float is a half.
        return number_format(round(round($percent, 9), $digits), $digits, '.', '') . ' %';
    }
}
