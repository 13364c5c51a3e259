<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Json;
use UpperPane\Core\Document\Reason;

/** JSON (RFC 8259) as it stands. Members of one name are refused, since which of them is meant nobody knows. */
final readonly class JsonTree implements TreeReader
{
    public const MOST_CONTAINERS = 300_000;
    public const MOST_VALUES = 2_000_000;

    public static function read(string $bytes, ReadOptions $options): mixed
    {
        // Strings and white space taken out, signs alone tell how much there is, before anything is made of it.
        $bare = preg_replace(['/"(?:[^"\\\\]++|\\\\.)*+"/s', '/[ \t\r\n]+/'], ['"', ''], $bytes);
        if ($bare === null) {
            throw DataRefused::because(Reason::DataSyntax, 'The JSON has a text that cannot be read.', '');
        }
        $containers = substr_count($bare, '[') + substr_count($bare, '{');
        $empty = substr_count($bare, '[]') + substr_count($bare, '{}');
        // Each container that is not empty has one thing more than commas; lists and objects are not counted twice.
        $values = substr_count($bare, ',') + $containers - $empty + 1 - $containers;
        $members = substr_count($bare, '":');
        foreach (['lists and objects' => [$containers, self::MOST_CONTAINERS], 'values' => [$values, self::MOST_VALUES]] as $what => [$count, $most]) {
            if ($count > $most) {
                throw DataRefused::because(Reason::DataTooLarge, sprintf('The JSON has %s %s; at most %s are read.', number_format($count), $what, number_format($most)), '');
            }
        }
        unset($bare);
        try {
            $tree = json_decode($bytes, false, Json::DEEPEST, JSON_THROW_ON_ERROR);
        } catch (\JsonException) {
            throw JsonFault::in($bytes);
        }

        return self::membersOf($tree) === $members ? $tree : throw JsonFault::in($bytes);
    }

    /** How many members it has; -1 where a number is beyond all that can be told. */
    private static function membersOf(mixed $tree): int
    {
        if (is_float($tree) && is_infinite($tree)) {
            return -1;
        }
        $count = 0;
        $open = [$tree];
        while ($open !== []) {
            $node = array_pop($open);
            $inner = $node instanceof \stdClass ? get_object_vars($node) : $node;
            if (is_array($inner)) {
                $count += $node instanceof \stdClass ? count($inner) : 0;
                foreach ($inner as $one) {
                    if (is_array($one) || $one instanceof \stdClass) {
                        $open[] = $one;
                    } elseif (is_float($one) && is_infinite($one)) {
                        return -1;
                    }
                }
            }
        }

        return $count;
    }
}
