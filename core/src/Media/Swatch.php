<?php

declare(strict_types=1);

namespace UpperPane\Core\Media;

use UpperPane\Core\Colour\Colour;

/** The colours of a picture, coarsely: so many columns and rows of sRGB with alpha. */
final readonly class Swatch
{
    /** @param string $rgba four bytes a pixel, row by row */
    private function __construct(private int $columns, private int $rows, private string $rgba)
    {
    }

    public static function of(int $columns, int $rows, string $rgba): self
    {
        if ($columns < 1 || $rows < 1 || strlen($rgba) !== 4 * $columns * $rows) {
            throw new \InvalidArgumentException(sprintf('%d bytes are no %d x %d colours.', strlen($rgba), $columns, $rows));
        }

        return new self($columns, $rows, $rgba);
    }

    /**
     * The colour that most of its edge has: of the pixels along the four sides, those that lie together within a 16th of each channel, and their mean.
     *
     * @return ?array{color: Colour, share: float} how much of the edge has it, 0 to 1; null where the edge is see-through
     */
    public function edge(): ?array
    {
        $groups = [];
        $seen = 0;
        for ($row = 0; $row < $this->rows; $row++) {
            $inner = $row > 0 && $row < $this->rows - 1;
            for ($column = 0; $column < $this->columns; $column += $inner && $column === 0 ? max(1, $this->columns - 1) : 1) {
                $at = 4 * ($row * $this->columns + $column);
                [$red, $green, $blue, $alpha] = [ord($this->rgba[$at]), ord($this->rgba[$at + 1]), ord($this->rgba[$at + 2]), ord($this->rgba[$at + 3])];
                $seen++;
                if ($alpha >= 128) {
                    $key = ($red >> 4) << 8 | ($green >> 4) << 4 | $blue >> 4;
                    $groups[$key] = [($groups[$key][0] ?? 0) + 1, ($groups[$key][1] ?? 0) + $red, ($groups[$key][2] ?? 0) + $green, ($groups[$key][3] ?? 0) + $blue];
                }
            }
        }
        if ($groups === []) {
            return null;
        }
        [$count, $red, $green, $blue] = max($groups);

        return ['color' => Colour::rgb((int) round($red / $count), (int) round($green / $count), (int) round($blue / $count)), 'share' => $count / $seen];
    }

    /**
     * @param float $x share of the width, 0 to 1
     * @param float $y share of the height, 0 to 1
     * @return array{int, int, int, int} red, green, blue and alpha, 0 to 255
     */
    public function at(float $x, float $y): array
    {
        $column = max(0, min($this->columns - 1, (int) floor($x * $this->columns)));
        $row = max(0, min($this->rows - 1, (int) floor($y * $this->rows)));
        $at = 4 * ($row * $this->columns + $column);

        return [ord($this->rgba[$at]), ord($this->rgba[$at + 1]), ord($this->rgba[$at + 2]), ord($this->rgba[$at + 3])];
    }
}
