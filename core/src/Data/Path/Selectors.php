<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Path;

/**
 * What the parts of a JSONPath do, as functions of a node (RFC 9535, 2.3 to 2.5).
 *
 * @phpstan-import-type Segment from JsonPath
 * @phpstan-type Value \Closure(mixed, Visit): mixed
 * @phpstan-type Nodes \Closure(mixed, Visit): list<mixed>
 * @phpstan-type Holds \Closure(mixed, Visit): bool
 */
final readonly class Selectors
{
    /**
     * @param non-empty-list<Nodes> $selectors
     * @return Segment
     */
    public static function flat(array $selectors): \Closure
    {
        return static function (array $nodes, Visit $visit) use ($selectors): array {
            $found = [];
            foreach ($nodes as $node) {
                foreach ($selectors as $selector) {
                    foreach ($selector($node, $visit) as $one) {
                        $found[] = $one;
                    }
                }
            }
            $visit->took(count($nodes) + count($found));

            return $found;
        };
    }

    /**
     * @param non-empty-list<Nodes> $selectors
     * @return Segment
     */
    public static function deep(array $selectors): \Closure
    {
        $flat = self::flat($selectors);

        return static function (array $nodes, Visit $visit) use ($flat): array {
            $found = [];
            // A node before its children, those of a list in their order (2.5.2.2).
            $open = array_reverse($nodes);
            while ($open !== []) {
                $node = array_pop($open);
                foreach ($flat([$node], $visit) as $one) {
                    $found[] = $one;
                }
                foreach (array_reverse(self::all($node)) as $child) {
                    if (is_array($child) || $child instanceof \stdClass) {
                        $open[] = $child;
                    }
                }
            }

            return $found;
        };
    }

    /** @return Nodes */
    public static function member(string $name): \Closure
    {
        return static fn (mixed $node): array => $node instanceof \stdClass && property_exists($node, $name) ? [$node->{$name}] : [];
    }

    /** @return Nodes */
    public static function element(int $place): \Closure
    {
        return static function (mixed $node) use ($place): array {
            $found = JsonPath::along([$place], $node);

            return $found === Nothing::Here ? [] : [$found];
        };
    }

    /** @return list<mixed> */
    public static function all(mixed $node): array
    {
        return match (true) {
            is_array($node) => array_values($node),
            $node instanceof \stdClass => array_values(get_object_vars($node)),
            default => [],
        };
    }

    /** @return Nodes the RFC's Slice (2.3.4.2.2) */
    public static function slice(?int $from, ?int $to, int $by): \Closure
    {
        return static function (mixed $node) use ($from, $to, $by): array {
            if (!is_array($node) || $by === 0) {
                return [];
            }
            $count = count($node);
            $place = static fn (int $given): int => $given >= 0 ? $given : $count + $given;
            $found = [];
            if ($by > 0) {
                $end = min(max($place($to ?? $count), 0), $count);
                for ($at = min(max($place($from ?? 0), 0), $count); $at < $end; $at += $by) {
                    $found[] = $node[$at];
                }
            } else {
                $end = $to === null ? -1 : min(max($place($to), -1), $count - 1);
                for ($at = $from === null ? $count - 1 : min(max($place($from), -1), $count - 1); $at > $end; $at += $by) {
                    $found[] = $node[$at];
                }
            }

            return $found;
        };
    }

    /**
     * @param Holds $holds
     * @return Nodes
     */
    public static function filter(\Closure $holds): \Closure
    {
        return static function (mixed $node, Visit $visit) use ($holds): array {
            $found = [];
            $children = self::all($node);
            $visit->took(count($children));
            foreach ($children as $child) {
                if ($holds($child, $visit)) {
                    $found[] = $child;
                }
            }

            return $found;
        };
    }

    /**
     * @param non-empty-list<Holds> $all
     * @return Holds
     */
    public static function every(array $all): \Closure
    {
        return count($all) === 1 ? $all[0] : static function (mixed $node, Visit $visit) use ($all): bool {
            foreach ($all as $holds) {
                if (!$holds($node, $visit)) {
                    return false;
                }
            }

            return true;
        };
    }

    /**
     * @param non-empty-list<Holds> $any
     * @return Holds
     */
    public static function some(array $any): \Closure
    {
        return count($any) === 1 ? $any[0] : static function (mixed $node, Visit $visit) use ($any): bool {
            foreach ($any as $holds) {
                if ($holds($node, $visit)) {
                    return true;
                }
            }

            return false;
        };
    }

    /**
     * @param Value $left
     * @param Value $right
     * @return Holds
     */
    public static function compared(\Closure $left, string $sign, \Closure $right): \Closure
    {
        return static function (mixed $node, Visit $visit) use ($left, $sign, $right): bool {
            $visit->took(1);
            [$one, $other] = [$left($node, $visit), $right($node, $visit)];

            return match ($sign) {
                '==' => self::equal($one, $other),
                '!=' => !self::equal($one, $other),
                '<' => self::less($one, $other),
                '>' => self::less($other, $one),
                '<=' => self::less($one, $other) || self::equal($one, $other),
                default => self::less($other, $one) || self::equal($one, $other),
            };
        };
    }

    private static function equal(mixed $one, mixed $other): bool
    {
        if ((is_int($one) || is_float($one)) && (is_int($other) || is_float($other))) {
            return $one == $other;
        }
        if ($one instanceof \stdClass && $other instanceof \stdClass) {
            [$one, $other] = [get_object_vars($one), get_object_vars($other)];
        } elseif (!is_array($one) || !is_array($other)) {
            return $one === $other;
        }
        if (count($one) !== count($other)) {
            return false;
        }
        foreach ($one as $name => $value) {
            if (!array_key_exists($name, $other) || !self::equal($value, $other[$name])) {
                return false;
            }
        }

        return true;
    }

    private static function less(mixed $one, mixed $other): bool
    {
        return match (true) {
            (is_int($one) || is_float($one)) && (is_int($other) || is_float($other)) => $one < $other,
            // Bytes of UTF-8 are in the order of their code points.
            is_string($one) && is_string($other) => strcmp($one, $other) < 0,
            default => false,
        };
    }

    public static function length(mixed $value): int|Nothing
    {
        return match (true) {
            is_string($value) => mb_strlen($value, 'UTF-8'),
            is_array($value) => count($value),
            $value instanceof \stdClass => count(get_object_vars($value)),
            default => Nothing::Here,
        };
    }
}
