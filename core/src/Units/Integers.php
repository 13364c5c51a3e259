<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

/** Sums on whole numbers that PHP's operators do not give. */
final readonly class Integers
{
    /** The remainder that is never negative: mod(-1, 10) is 9. */
    public static function mod(int $value, int $period): int
    {
        $rest = $value % $period;

        return $rest < 0 ? $rest + $period : $rest;
    }

    /**
     * The largest number for which something holds, which holds for all below it and is taken to hold for the least.
     *
     * @param \Closure(int): bool $holds
     */
    public static function largest(int $least, int $most, \Closure $holds): int
    {
        while ($least < $most) {
            $middle = intdiv($least + $most + 1, 2);
            $holds($middle) ? $least = $middle : $most = $middle - 1;
        }

        return $least;
    }

    /**
     * The largest number that divides all of these.
     *
     * @param non-empty-list<int> $values positive
     */
    public static function greatestCommonDivisor(array $values): int
    {
        $common = 0;
        foreach ($values as $value) {
            while ($value !== 0) {
                [$common, $value] = [$value, $common % $value];
            }
        }

        return $common;
    }

    /**
     * The least common multiple of positive numbers, or null where it is above $limit.
     *
     * @param list<int> $values
     */
    public static function leastCommonMultiple(array $values, int $limit): ?int
    {
        $multiple = 1;
        foreach ($values as $value) {
            $factor = intdiv($value, self::greatestCommonDivisor([$multiple, $value]));
            if ($factor > intdiv($limit, $multiple)) {
                return null;
            }
            $multiple *= $factor;
        }

        return $multiple;
    }
}
