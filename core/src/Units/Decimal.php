<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

/** Numbers as they are written: in the shortest decimal form that means the same double, as JSON has it. */
final readonly class Decimal
{
    /** ECMAScript's Number::toString, which JSON's canonical form (RFC 8785) takes: `1`, `0.5`, `1e+21`. */
    public static function text(int|float $number): string
    {
        if (is_int($number) || !is_finite($number)) {
            return (string) $number;
        }
        [$sign, $digits, $point] = self::parts($number);
        $count = strlen($digits);

        return $sign . match (true) {
            $digits === '0' => '0',
            $point > 0 && $point <= 21 => $count <= $point ? str_pad($digits, $point, '0') : substr($digits, 0, $point) . '.' . substr($digits, $point),
            $point > -6 && $point <= 0 => '0.' . str_repeat('0', -$point) . $digits,
            default => $digits[0] . ($count > 1 ? '.' . substr($digits, 1) : '') . sprintf('e%+d', $point - 1),
        };
    }

    /** Half away from zero, of the decimal form: 2.675 to 2 is 2.68. */
    public static function rounded(int|float $number, int $decimals): int|float
    {
        if (is_int($number) || !is_finite($number)) {
            return $number;
        }
        [$sign, $digits, $point] = self::parts($number);
        $kept = $point + $decimals;
        if ($kept >= strlen($digits)) {
            return $number;
        }
        if ($kept < 0) {
            return 0.0;
        }
        $up = $digits[$kept] >= '5';
        $whole = substr($digits, 0, $kept);
        for ($at = $kept - 1; $up && $at >= 0; $at--) {
            $up = $whole[$at] === '9';
            $whole[$at] = $up ? '0' : (string) ((int) $whole[$at] + 1);
        }
        $whole = ($up ? '1' : '') . $whole;
        $rounded = (float) ($sign . ($whole === '' ? '0' : $whole) . 'e' . ($point - $kept));

        return $rounded === 0.0 ? 0.0 : $rounded;
    }

    /**
     * A decimal as a whole number and the power of ten that divides it; null where it has more digits than whole numbers have.
     *
     * @return ?array{int, int}
     */
    public static function scaled(int|float $number): ?array
    {
        if (is_int($number)) {
            return [$number, 0];
        }
        [$sign, $digits, $point] = self::parts($number);
        $power = strlen($digits) - $point;
        if ($power < 0) {
            [$digits, $power] = [str_pad($digits, $point, '0'), 0];
        }

        return strlen($digits) > 18 || $power > 18 ? null : [(int) ($sign . $digits), $power];
    }

    /** @return array{string, string, int} sign, digits without zeros around them, and where among them the point stands */
    private static function parts(float $number): array
    {
        // The shortest form: PHP gives it at a precision of -1, whatever its settings are, by var_export.
        $form = var_export(abs($number), true);
        $exponent = strpos($form, 'E');
        $mantissa = $exponent === false ? $form : substr($form, 0, $exponent);
        $whole = strcspn($mantissa, '.');
        $digits = substr($mantissa, 0, $whole) . substr($mantissa, $whole + 1);
        $bare = ltrim($digits, '0');
        $point = $whole - strlen($digits) + strlen($bare) + ($exponent === false ? 0 : (int) substr($form, $exponent + 1));
        $bare = rtrim($bare, '0');

        return $bare === '' ? ['', '0', 1] : [$number < 0 ? '-' : '', $bare, $point];
    }
}
