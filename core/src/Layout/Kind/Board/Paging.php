<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

/** How rows are parted into pages. */
final readonly class Paging
{
    /** What a page without rows lasts by itself, and how long any page takes to be noticed, ms. */
    private const NOTICE_MS = 1000;
    private const STEP_MS = 100;

    /**
     * @param int $rows from 0
     * @param int $atOnce from 1
     * @param bool $isBalanced whether pages differ by one row at the most, the larger ones first; else each is filled
     * @return non-empty-list<int> rows of each page; one of 0 where there are none
     */
    public static function sizes(int $rows, int $atOnce, bool $isBalanced): array
    {
        $pages = max(1, intdiv($rows + $atOnce - 1, $atOnce));
        $sizes = [];
        for ($page = 0, $left = $rows; $page < $pages; $page++) {
            $sizes[] = $size = $isBalanced ? intdiv($rows, $pages) + ($page < $rows % $pages ? 1 : 0) : min($atOnce, $left);
            $left -= $size;
        }

        return $sizes;
    }

    /** How long so many words take to be noticed and read twice at 180 a minute, ms, rounded up to 100. Common practice, no source. */
    public static function readMs(int $words): int
    {
        return self::STEP_MS * intdiv(3 * self::NOTICE_MS + 2000 * $words + 3 * self::STEP_MS - 1, 3 * self::STEP_MS);
    }
}
