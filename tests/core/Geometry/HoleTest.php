<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Geometry;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Geometry\Hole;
use UpperPane\Core\Geometry\Size;

/** The largest transparent rectangle, by hand; tests/reference holds it against a brute force in Python. */
final class HoleTest extends TestCase
{
    /**
     * @param list<string> $rows `.` is transparent
     * @param ?list<int> $want x, y, width, height
     */
    #[DataProvider('pictures')]
    public function testTheLargestHoleIsFound(array $rows, ?array $want): void
    {
        $alpha = strtr(implode('', $rows), ['.' => "\0", '#' => "\xff", '-' => "\x01"]);
        $hole = Hole::largest($alpha, Size::px(strlen($rows[0]), count($rows)));
        self::assertSame($want, $hole === null ? null : array_values($hole->toArray()));
    }

    /** @return iterable<string, array{list<string>, ?list<int>}> */
    public static function pictures(): iterable
    {
        yield 'none' => [['####', '####'], null];
        yield 'nearly transparent is not' => [['#--#', '#-.#'], [2, 1, 1, 1]];
        yield 'all of it' => [['...', '...'], [0, 0, 3, 2]];
        yield 'within a frame' => [['#####', '#...#', '#...#', '#####'], [1, 1, 3, 2]];
        yield 'a cross' => [['##.##', '##.##', '.....', '##.##', '##.##'], [2, 0, 1, 5]];
        yield 'of equal ones the topmost' => [['##..', '##..', '..##', '..##'], [2, 0, 2, 2]];
        yield 'then the leftmost' => [['..#..', '..#..'], [0, 0, 2, 2]];
        yield 'then the widest' => [['....', '..##', '##.#', '##.#'], [0, 0, 4, 1]];
        yield 'stairs' => [['.###', '..##', '...#', '....'], [0, 1, 2, 3]];
    }
}
