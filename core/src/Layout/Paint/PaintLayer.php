<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Paint;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\Flip;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Media\Swatch;

/** One layer of paint below a text: a colour within a shape, or a picture as it is fitted to its box. */
final readonly class PaintLayer
{
    /** @param array{int, int, int, int}|Swatch $paint red, green, blue and alpha, 0 to 255, or what a picture has */
    private function __construct(
        private Box $clip,
        private bool $ellipse,
        private array|Swatch $paint,
        private Box $drawn,
        private Flip $flip = Flip::None,
        private float $opacity = 1.0,
    ) {
    }

    public static function ofFill(Rect $rect, Colour $fill, bool $ellipse = false): self
    {
        $hex = str_pad(substr($fill->hex, 1), 8, 'f');
        $rgba = array_map(static fn (string $byte): int => (int) hexdec($byte), str_split($hex, 2));

        return new self(Box::ofRect($rect), $ellipse, [$rgba[0], $rgba[1], $rgba[2], $rgba[3]], Box::ofRect($rect));
    }

    /** @param Box $painted what is seen of it; $whole where all of it would lie */
    public static function ofPicture(Box $painted, Box $whole, Swatch $swatch, Flip $flip, float $opacity): self
    {
        return new self($painted, false, $swatch, $whole, $flip, $opacity);
    }

    public static function ofItem(Rect $rect, Fit $fit, Swatch $swatch): self
    {
        return new self(Box::ofRect($rect), false, $swatch, $fit->drawn->placed(1.0, 1.0, $rect->x, $rect->y));
    }

    /** Whether it is the same colour wherever it is. */
    public function isPlain(): bool
    {
        return is_array($this->paint) && !$this->ellipse;
    }

    /** Whether all of a box lies within it. */
    public function covers(Box $box): bool
    {
        return $box->x >= $this->clip->x && $box->y >= $this->clip->y
            && $box->x + $box->width < $this->clip->x + $this->clip->width && $box->y + $box->height < $this->clip->y + $this->clip->height;
    }

    /**
     * What is seen at a point of the canvas with this layer over what was seen before.
     *
     * @param array{float, float, float} $below red, green, blue, 0 to 255
     * @return array{float, float, float}
     */
    public function over(array $below, float $x, float $y): array
    {
        [$dx, $dy] = [($x - $this->drawn->x) / $this->drawn->width, ($y - $this->drawn->y) / $this->drawn->height];
        $outside = $x < $this->clip->x || $y < $this->clip->y || $x >= $this->clip->x + $this->clip->width || $y >= $this->clip->y + $this->clip->height
            || $dx < 0.0 || $dy < 0.0 || $dx >= 1.0 || $dy >= 1.0
            || ($this->ellipse && ($dx - 0.5) ** 2 + ($dy - 0.5) ** 2 > 0.25);
        if ($outside) {
            return $below;
        }
        [$red, $green, $blue, $alpha] = $this->paint instanceof Swatch
            ? $this->paint->at($this->flip->isAcross() ? 1.0 - $dx : $dx, $this->flip->isDown() ? 1.0 - $dy : $dy)
            : $this->paint;
        $share = $this->opacity * $alpha / 255;

        return [$below[0] + $share * ($red - $below[0]), $below[1] + $share * ($green - $below[1]), $below[2] + $share * ($blue - $below[2])];
    }
}
