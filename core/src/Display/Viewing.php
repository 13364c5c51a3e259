<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** From where a display is looked at, in mm. */
final readonly class Viewing
{
    /** Heights above the floor, mm, where the survey does not say them: eyes of a standing adult. Common practice, no source. */
    public const USUAL_HEIGHT_MM = 1600.0;

    /**
     * @param float $centreHeightMm of the middle of the display above the floor
     * @param float $eyeHeightMm of the viewers' eyes above the same floor
     */
    private function __construct(
        public float $nearestMm,
        public float $farthestMm,
        public float $centreHeightMm,
        public float $eyeHeightMm,
    ) {
    }

    /** @throws DocumentRefused when the farthest viewer stands nearer than the nearest */
    public static function fromNode(Node $node): self
    {
        $node->object('nearest_mm', 'farthest_mm', 'centre_height_mm', 'eye_height_mm');
        $height = static fn (string $name): float => $node->optional($name)?->number(unit: 'mm') ?? self::USUAL_HEIGHT_MM;
        $nearest = $node->field('nearest_mm')->positive('mm');
        $farthest = $node->field('farthest_mm');
        if ($farthest->positive('mm') < $nearest) {
            throw $farthest->refused(Reason::ValueRange, sprintf('is %s mm, nearer than the nearest viewer at %s mm.', $farthest->positive(), $nearest));
        }

        return new self($nearest, $farthest->positive('mm'), $height('centre_height_mm'), $height('eye_height_mm'));
    }

    /** @return float mm between the heights of eyes and of the middle of the display; above 0 where the display is higher */
    public function rise(): float
    {
        return $this->centreHeightMm - $this->eyeHeightMm;
    }

    /**
     * How far the eye is from the middle of the display: this is the distance that decides what is legible, for all that judges it.
     *
     * @param float $floorMm over the floor
     * @return float mm
     */
    public function eyeMm(float $floorMm): float
    {
        return hypot($floorMm, $this->rise());
    }

    /** @return float mm from the eye of the farthest viewer to the middle of the display */
    public function farthestEyeMm(): float
    {
        return $this->eyeMm($this->farthestMm);
    }

    /** @return array{nearest_mm: float, farthest_mm: float, centre_height_mm: float, eye_height_mm: float} */
    public function toArray(): array
    {
        return [
            'nearest_mm' => $this->nearestMm,
            'farthest_mm' => $this->farthestMm,
            'centre_height_mm' => $this->centreHeightMm,
            'eye_height_mm' => $this->eyeHeightMm,
        ];
    }
}
