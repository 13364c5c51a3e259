<?php

declare(strict_types=1);

namespace UpperPane\Core\Media;

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
