<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

/**
 * The largest rectangle of a picture that is wholly transparent.
 *
 * Row by row, each column knows how far up it is transparent; the largest rectangle that stands on a row is found with a stack of rising columns, so that
 * all of it takes as long as there are px. Outside check: a brute force in another language.
 */
final readonly class Hole
{
    /**
     * Of equal ones the topmost, then the leftmost, then the widest.
     *
     * @param string $alpha a byte for each px, row by row; 0 is transparent
     * @return ?Rect null where no px is
     */
    public static function largest(string $alpha, Size $size): ?Rect
    {
        $width = $size->width;
        $heights = array_fill(0, $width + 1, 0);
        /** @var ?array{int, int, int, int} $best less is better: area below 0, top, left, width below 0 */
        $best = null;
        for ($y = 0; $y < $size->height; $y++) {
            $row = substr($alpha, $y * $width, $width);
            if (!str_contains($row, "\0")) {
                $heights = array_fill(0, $width + 1, 0);
                continue;
            }
            $stack = [];
            for ($x = 0; $x <= $width; $x++) {
                $heights[$x] = $x < $width && $row[$x] === "\0" ? $heights[$x] + 1 : 0;
                $from = $x;
                while ($stack !== [] && $stack[count($stack) - 1][1] >= $heights[$x]) {
                    [$from, $height] = array_pop($stack);
                    $found = [-$height * ($x - $from), $y - $height + 1, $from, $from - $x];
                    $best = $height > 0 && ($best === null || $found < $best) ? $found : $best;
                }
                $stack[] = [$from, $heights[$x]];
            }
        }

        return $best === null ? null : Rect::at($best[2], $best[1], -$best[3], intdiv(-$best[0], -$best[3]));
    }
}
