<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;

/**
 * The match of a layout's canvas to a display's raster.
 *
 * The target is placed as `contain`; of an odd bar the odd px goes to the right or the bottom.
 */
final readonly class Matching
{
    private function __construct(
        public Size $canvas,
        public Size $raster,
        public Verdict $verdict,
        public float $scale,
        public Rect $target,
        public bool $swapped,
    ) {
    }

    public static function of(Size $canvas, Size $raster): self
    {
        $swapped = !$canvas->isSquare() && $canvas->equals($raster->swapped());
        $crossed = !$canvas->isSquare() && !$raster->isSquare() && $canvas->isPortrait() !== $raster->isPortrait();
        $verdict = match (true) {
            $canvas->equals($raster) => Verdict::Exact,
            $crossed && !$canvas->sameAspectAs($raster) => Verdict::Crossed,
            $canvas->sameAspectAs($raster) => Verdict::Scaled,
            default => Verdict::Padded,
        };
        $scale = min($raster->width / $canvas->width, $raster->height / $canvas->height);
        if ($verdict === Verdict::Exact || $verdict === Verdict::Scaled) {
            return new self($canvas, $raster, $verdict, $scale, Rect::whole($raster), $swapped);
        }
        $width = max(1, min($raster->width, (int) round($canvas->width * $scale)));
        $height = max(1, min($raster->height, (int) round($canvas->height * $scale)));
        $target = Rect::at(intdiv($raster->width - $width, 2), intdiv($raster->height - $height, 2), $width, $height);

        return new self($canvas, $raster, $verdict, $scale, $target, $swapped);
    }

    /**
     * Which of several canvases suits a raster best: exact, then scaled, padded, crossed; of two alike the one that fills more of it, then the earlier one.
     *
     * @param non-empty-list<Size> $canvases
     * @return int its place in the list
     */
    public static function bestOf(array $canvases, Size $raster): int
    {
        $ranks = array_map(static function (Size $canvas) use ($raster): array {
            $match = self::of($canvas, $raster);

            return [(int) array_search($match->verdict, Verdict::cases(), true), -$match->used()];
        }, $canvases);

        return (int) array_search(min($ranks), $ranks, true);
    }

    /**
     * How large one px of the canvas is on a display of this density.
     *
     * @param float $pxPerMm of the display's raster
     * @return float mm
     */
    public function mmPerCanvasPx(float $pxPerMm): float
    {
        return $this->scale / $pxPerMm;
    }

    /** The whole px of the raster that a rectangle of the canvas touches. */
    public function onRaster(Rect $rect): Rect
    {
        [$sx, $sy] = [$this->target->width / $this->canvas->width, $this->target->height / $this->canvas->height];
        [$x, $y] = [$this->target->x + (int) floor(round($rect->x * $sx, 6)), $this->target->y + (int) floor(round($rect->y * $sy, 6))];

        return Rect::at(
            $x,
            $y,
            max(1, $this->target->x + (int) ceil(round($rect->right() * $sx, 6)) - $x),
            max(1, $this->target->y + (int) ceil(round($rect->bottom() * $sy, 6)) - $y),
        );
    }

    /** The whole px of the canvas that lie within a rectangle of the raster; null where there is none. */
    public function onCanvas(Rect $rect): ?Rect
    {
        [$sx, $sy] = [$this->target->width / $this->canvas->width, $this->target->height / $this->canvas->height];
        [$x, $y] = [(int) ceil(round(($rect->x - $this->target->x) / $sx, 6)), (int) ceil(round(($rect->y - $this->target->y) / $sy, 6))];
        $width = (int) floor(round(($rect->right() - $this->target->x) / $sx, 6)) - $x;
        $height = (int) floor(round(($rect->bottom() - $this->target->y) / $sy, 6)) - $y;

        return $width > 0 && $height > 0 ? Rect::at($x, $y, $width, $height) : null;
    }

    /** @return float share of the raster inside the target, 0 to 1 */
    public function used(): float
    {
        return $this->target->area() / $this->raster->area();
    }

    /** @return array{left: int, top: int, right: int, bottom: int} in px of the raster */
    public function bars(): array
    {
        return [
            'left' => $this->target->x,
            'top' => $this->target->y,
            'right' => $this->raster->width - $this->target->right(),
            'bottom' => $this->raster->height - $this->target->bottom(),
        ];
    }

    /** @return array<string, mixed> as `bin/upperpane match` prints it */
    public function toArray(): array
    {
        return [
            'verdict' => $this->verdict->value,
            'scale' => round($this->scale, 6),
            'target' => $this->target->toArray(),
            'bars' => $this->bars(),
            'used' => round($this->used(), 6),
            'swapped' => $this->swapped,
        ];
    }
}
