<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

/**
 * How content of one size meets a box of another.
 *
 * Source: CSS Images 3, 5.5 `object-fit` and 5.6 `object-position` (percentages). All boxes are in px;
 * `drawn` is relative to the box, `visible` is in source px.
 */
final readonly class Fit
{
    private function __construct(
        public Size $source,
        public Size $box,
        public Box $drawn,
        public Box $visible,
        public float $scaleX,
        public float $scaleY,
    ) {
    }

    /**
     * @param float $focusX share of the free width left of the content, in percent (CSS object-position)
     * @param float $focusY the same of the height
     */
    public static function of(Size $source, Size $box, FitMode $mode, float $focusX = 50.0, float $focusY = 50.0): self
    {
        $contain = min($box->width / $source->width, $box->height / $source->height);
        $cover = max($box->width / $source->width, $box->height / $source->height);
        [$scaleX, $scaleY] = match ($mode) {
            FitMode::Contain => [$contain, $contain],
            FitMode::Cover => [$cover, $cover],
            FitMode::Fill => [$box->width / $source->width, $box->height / $source->height],
            FitMode::None => [1.0, 1.0],
            FitMode::ScaleDown => [min(1.0, $contain), min(1.0, $contain)],
        };
        $width = $source->width * $scaleX;
        $height = $source->height * $scaleY;
        $drawn = new Box(($box->width - $width) * $focusX / 100, ($box->height - $height) * $focusY / 100, $width, $height);
        $inBox = $drawn->clippedTo(new Box(0, 0, $box->width, $box->height));
        $visible = new Box(
            ($inBox->x - $drawn->x) / $scaleX,
            ($inBox->y - $drawn->y) / $scaleY,
            $inBox->width / $scaleX,
            $inBox->height / $scaleY,
        );

        return new self($source, $box, $drawn, $visible, $scaleX, $scaleY);
    }

    /** @return float share of the source's area that is cut off, 0 to 1 */
    public function lost(): float
    {
        return max(0.0, 1 - $this->visible->width * $this->visible->height / $this->source->area());
    }

    /** @return float share of the box that stays empty, 0 to 1 */
    public function empty(): float
    {
        $painted = $this->visible->width * $this->scaleX * $this->visible->height * $this->scaleY;

        return max(0.0, 1 - $painted / $this->box->area());
    }

    /** @return float how far the two scales are apart: 0 for no distortion, 0.25 for a quarter wider or higher */
    public function distortion(): float
    {
        return max($this->scaleX / $this->scaleY, $this->scaleY / $this->scaleX) - 1;
    }

    /** @return array{left: float, top: float, right: float, bottom: float} empty px inside the box */
    public function bars(): array
    {
        return [
            'left' => max(0.0, $this->drawn->x),
            'top' => max(0.0, $this->drawn->y),
            'right' => max(0.0, $this->box->width - $this->drawn->x - $this->drawn->width),
            'bottom' => max(0.0, $this->box->height - $this->drawn->y - $this->drawn->height),
        ];
    }

    /** @return array<string, mixed> as `bin/upperpane fit` prints it */
    public function toArray(): array
    {
        return [
            'drawn' => $this->drawn->toArray(),
            'visible' => $this->visible->toArray(),
            'bars' => array_map(Box::figure(...), $this->bars()),
            'lost' => round($this->lost(), 6),
            'scale' => ['x' => round($this->scaleX, 6), 'y' => round($this->scaleY, 6)],
        ];
    }
}
