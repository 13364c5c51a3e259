<?php

declare(strict_types=1);

namespace UpperPane\Core\Data;

use UpperPane\Core\Units\Decimal;
use UpperPane\Core\Units\Moment;
use UpperPane\Core\Units\Sweeping;

/**
 * What a tree is made of, level by level, however large it is: what all the things of a list have in common stands there once, with how many
 * there are, of which types, and with examples.
 *
 * @phpstan-type Level array{path: string, name: string, count: int, missing: int, types: array<string, int>, examples: list<string>, levels: list<array<string, mixed>>}
 */
final readonly class Outline
{
    /** Members that are told of one level. */
    private const MOST_MEMBERS = 200;
    private const EXAMPLES = 3;
    private const LONGEST = 120;

    /** @return array<string, mixed> the root, with the levels in it */
    public static function of(mixed $tree): array
    {
        return Sweeping::without(static fn (): array => self::level('$', '$', [$tree], 0));
    }

    /**
     * @param list<mixed> $nodes all that stand at this path
     * @param int $missing so many have no such member, or null
     * @return array<string, mixed>
     */
    private static function level(string $path, string $name, array $nodes, int $missing): array
    {
        [$types, $examples, $members, $things] = [[], [], [], []];
        foreach ($nodes as $node) {
            $type = self::type($node);
            $types[$type] = ($types[$type] ?? 0) + 1;
            if ($node instanceof \stdClass) {
                foreach (get_object_vars($node) as $member => $value) {
                    $members["_$member"][] = $value;
                }
            } elseif (is_array($node)) {
                foreach ($node as $thing) {
                    $things[] = $thing;
                }
            } elseif ($node !== null && count($examples) < self::EXAMPLES && !in_array($text = self::text($node), $examples, true)) {
                $examples[] = $text;
            }
        }
        arsort($types);
        $levels = [];
        foreach (array_slice($members, 0, self::MOST_MEMBERS, true) as $key => $values) {
            $member = substr((string) $key, 1);
            $present = array_values(array_filter($values, static fn (mixed $value): bool => $value !== null));
            $levels[] = self::level($path . self::step($member), $member, $present, ($types['object'] ?? 0) - count($present));
        }
        if ($things !== []) {
            $levels[] = self::level("{$path}[*]", '[*]', $things, 0);
        }

        return [
            'path' => $path,
            'name' => mb_strimwidth($name, 0, self::LONGEST, '...'),
            'count' => count($nodes),
            'missing' => $missing,
            'types' => $types,
            'examples' => $examples,
            'more' => max(0, count($members) - self::MOST_MEMBERS),
            'levels' => $levels,
        ];
    }

    /** How a member is written in a path (RFC 9535, 2.3.1 and 2.5.1). */
    private static function step(string $member): string
    {
        return preg_match('/^[A-Za-z_][A-Za-z0-9_]*$/D', $member) === 1 ? ".$member" : "['" . addcslashes($member, "'\\\n\r\t") . "']";
    }

    private static function type(mixed $node): string
    {
        return match (true) {
            $node === null => 'null',
            $node instanceof \stdClass => 'object',
            is_array($node) => 'list',
            is_bool($node) => 'boolean',
            is_string($node) => self::typeOfText($node),
            default => 'number',
        };
    }

    private static function typeOfText(string $text): string
    {
        return match (true) {
            Moment::ofRfc3339($text) !== null => 'instant',
            preg_match('/^\d{4}-\d\d-\d\dT\d\d:\d\d(?::\d\d)?$/D', $text) === 1 => 'local',
            preg_match('/^\d{4}-\d\d-\d\d$/D', $text) === 1 => 'date',
            Rows\FieldType::number($text) !== null => 'figure',
            default => 'text',
        };
    }

    private static function text(mixed $value): string
    {
        return match (true) {
            is_bool($value) => $value ? 'true' : 'false',
            is_int($value), is_float($value) => Decimal::text($value),
            default => mb_strimwidth(is_string($value) ? $value : '', 0, self::LONGEST, '...'),
        };
    }
}
