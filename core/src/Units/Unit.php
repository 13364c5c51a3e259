<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

/** Units of what is measured, by their definitions (NIST SP 811; the nautical mile and the knot by the BIPM's SI brochure). */
final readonly class Unit
{
    /**
     * Of one unit in the first of its kind: numerator and denominator.
     *
     * @var array<string, array<string, array{int, int}>>
     */
    private const RATIOS = [
        'speed' => ['m/s' => [1, 1], 'km/h' => [5, 18], 'kn' => [1_852, 3_600], 'mph' => [1_609_344, 3_600_000]],
        'length' => [
            'mm' => [1, 1_000], 'cm' => [1, 100], 'm' => [1, 1], 'km' => [1_000, 1],
            'in' => [254, 10_000], 'ft' => [3_048, 10_000], 'mi' => [1_609_344, 1_000], 'nmi' => [1_852, 1],
        ],
        // 25.4 mm of mercury of 1.33322387415 hPa each.
        'pressure' => ['hPa' => [1, 1], 'inHg' => [3_386_388_640_341, 100_000_000_000]],
        'volume' => ['L' => [1, 1], 'gal' => [3_785_411_784, 1_000_000_000]],
    ];

    /**
     * Degrees: first a ratio, then what is added before it, in hundredths, to come to C.
     *
     * @var array<string, array{int, int, int}>
     */
    private const DEGREES = ['C' => [1, 1, 0], 'F' => [5, 9, -3_200], 'K' => [1, 1, -27_315]];

    /** @return list<string> */
    public static function names(): array
    {
        return array_merge(...self::kinds());
    }

    /** @return list<list<string>> those that measure the same */
    public static function kinds(): array
    {
        return [...array_map(array_keys(...), array_values(self::RATIOS)), array_keys(self::DEGREES)];
    }

    /** Whether one can be told in the other. */
    public static function isLike(string $one, string $other): bool
    {
        return self::kindOf($one) !== null && self::kindOf($one) === self::kindOf($other);
    }

    /** Exactly by the definitions, to the next double. */
    public static function converted(int|float $value, string $from, string $to): int|float
    {
        if ($from === $to) {
            return $value;
        }
        if (isset(self::DEGREES[$from], self::DEGREES[$to])) {
            return self::degrees($value, self::DEGREES[$from], self::DEGREES[$to]);
        }
        $ratios = self::ratiosLike($from);
        [$up, $down] = [$ratios[$from][0] * $ratios[$to][1], $ratios[$from][1] * $ratios[$to][0]];
        $common = Integers::greatestCommonDivisor([$up, $down]);

        return self::ratio($value, intdiv($up, $common), intdiv($down, $common));
    }

    /** @return array<string, array{int, int}> of the units that measure the same */
    private static function ratiosLike(string $unit): array
    {
        return self::RATIOS[self::kindOf($unit) ?? ''] ?? [];
    }

    private static function kindOf(string $unit): ?string
    {
        if (isset(self::DEGREES[$unit])) {
            return 'temperature';
        }
        foreach (self::RATIOS as $kind => $units) {
            if (isset($units[$unit])) {
                return $kind;
            }
        }

        return null;
    }

    /**
     * @param array{int, int, int} $from
     * @param array{int, int, int} $to
     */
    private static function degrees(int|float $value, array $from, array $to): int|float
    {
        $scaled = Decimal::scaled($value);
        if ($scaled === null || $scaled[1] > 12 || abs($scaled[0]) > 1e14) {
            return (($value + $from[2] / 100) * $from[0] / $from[1]) * $to[1] / $to[0] - $to[2] / 100;
        }
        // As whole numbers: a sum of decimals is a decimal, which a sum of doubles is not. What K adds comes behind its ratio of 1.
        [$digits, $power] = $scaled;
        $power = max(2, $power);
        $digits *= 10 ** ($power - $scaled[1]);
        $scale = 10 ** ($power - 2);
        $up = $from[0] * $to[1];
        $down = $from[1] * $to[0];
        $sum = ($digits + $from[2] * $scale) * $up - $to[2] * $scale * $down;

        return self::tidy($sum / ($down * 10 ** $power));
    }

    private static function ratio(int|float $value, int $up, int $down): int|float
    {
        $scaled = Decimal::scaled($value);
        if ($scaled !== null) {
            $numerator = (float) $scaled[0] * $up;
            $denominator = (float) $down * 10 ** $scaled[1];
            // Both are exact below 2^53: then their quotient is the nearest double.
            if (abs($numerator) < 2 ** 53 && $denominator < 2 ** 53) {
                return self::tidy($numerator / $denominator);
            }
        }

        return self::tidy($value * $up / $down);
    }

    private static function tidy(int|float $value): int|float
    {
        return is_float($value) && floor($value) === $value && abs($value) < 2 ** 53 ? (int) $value : $value;
    }
}
