<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Style;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Media\Media;

/** The house style as it is worked out on one canvas, for the viewers of the display on which that is seen. */
final readonly class Styling
{
    /** How a canvas is seen of which no display is known: 1 mm a px, at 10 m. */
    private const MM_PER_PX = 1.0;
    private const DISTANCE_MM = 10_000.0;

    private const ONE = ['colours' => 'colour', 'faces' => 'face', 'sizes' => 'size', 'marks' => 'mark'];

    private function __construct(private Styles $styles, private Surroundings $surroundings, private Size $canvas)
    {
    }

    /** @param Surroundings $surroundings whose styles rule */
    public static function on(Size $canvas, Surroundings $surroundings): self
    {
        return new self($surroundings->styles, $surroundings, $canvas);
    }

    /** @throws DocumentRefused where there is none of that name; so of all */
    public function colour(string $name, string $path): Colour
    {
        return $this->styles->colour($name) ?? throw $this->unknown('colours', $name, $path);
    }

    public function face(string $name, string $path): NamedFace
    {
        return $this->styles->face($name) ?? throw $this->unknown('faces', $name, $path);
    }

    public function mark(string $name, string $path): Media
    {
        return $this->styles->mark($name) ?? throw $this->unknown('marks', $name, $path);
    }

    /**
     * @param string $family in which it is set
     * @return int px of the canvas
     */
    public function sizePx(string $name, string $family, int $weight, string $path): int
    {
        $size = $this->styles->size($name) ?? throw $this->unknown('sizes', $name, $path);
        $display = $this->surroundings->display;
        $faces = $this->surroundings->faces;

        return $size->px(
            $this->canvas,
            $display === null ? self::MM_PER_PX : Matching::of($this->canvas, $display->raster())->mmPerCanvasPx($display->pxPerMm()),
            $display === null ? self::DISTANCE_MM : $display->viewing->farthestEyeMm(),
            $faces !== null && $faces->knows($family) ? $faces->capShare($family, $weight) : Legibility::CAP_SHARE,
        );
    }

    /** @param 'colours'|'faces'|'sizes'|'marks' $sort */
    private function unknown(string $sort, string $name, string $path): DocumentRefused
    {
        $rules = $this->styles->rules();
        $names = $this->styles->names($sort);
        $there = $rules === null
            ? 'and no house style is given'
            : sprintf('and the house style "%s" has no %s of that name; it has %s', $rules->name, self::ONE[$sort], $names === [] ? 'none' : implode(', ', array_slice($names, 0, 20)));

        return DocumentRefused::because(Reason::RefUnknown, sprintf('%s is "%s%s", %s.', $path, $sort === 'marks' ? '' : '@', $name, $there), $path);
    }
}
