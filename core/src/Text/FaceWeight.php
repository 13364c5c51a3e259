<?php

declare(strict_types=1);

namespace UpperPane\Core\Text;

/** Which weight of a family is drawn for the one that is asked for. Source: W3C CSS Fonts Module Level 4, 5.2 (font matching, step 4.3). */
final readonly class FaceWeight
{
    /**
     * @param int $wanted 1 to 1000
     * @param non-empty-list<int> $there
     */
    public static function nearest(int $wanted, array $there): int
    {
        $order = static fn (int $weight): array => match (true) {
            $weight === $wanted => [0, 0],
            // Between 400 and 500 the other of the two comes first, then the lighter ones, then the bolder ones.
            $wanted >= 400 && $wanted <= 500 => $weight > $wanted && $weight <= 500 ? [1, $weight] : ($weight < $wanted ? [2, -$weight] : [3, $weight]),
            $wanted < 400 => $weight < $wanted ? [1, -$weight] : [2, $weight],
            default => $weight > $wanted ? [1, $weight] : [2, -$weight],
        };
        usort($there, static fn (int $a, int $b): int => $order($a) <=> $order($b));

        return $there[0];
    }
}
