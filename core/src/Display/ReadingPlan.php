<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

/** From where a text on a display can be read: over the floor, from above and from the side. */
final readonly class ReadingPlan
{
    /** How far from straight before a display letters are still read well, degrees to each side. Common practice, no source. */
    public const USABLE_ANGLE = 45.0;
    /** How far eyes are raised or lowered without the head, degrees. Common practice, no source. */
    public const EASY_SLANT = 30.0;
    /** ANSI/AVIXA V202.01, basic decisions: farthest viewer = image height x 200 x share of the height that an element takes (from memory). */
    public const AVIXA_FACTOR = 200.0;
    /** Arc minutes in a radian: beyond so many pitches the pixels of an LED raster merge (from memory). */
    public const MERGE_FACTOR = 3438.0;

    private function __construct(private Display $display, private ?float $capPx)
    {
    }

    /** @param ?float $capPx height of a capital, in px of the display; null to say only what holds for any text */
    public static function of(Display $display, ?float $capPx = null): self
    {
        return new self($display, $capPx);
    }

    /** @return float mm over the floor at which the eye is that far from the middle; 0 where it is so even below it */
    public function floorMm(float $eyeMm): float
    {
        return sqrt(max(0.0, $eyeMm ** 2 - $this->display->viewing->rise() ** 2));
    }

    /** @return array<string, mixed> lengths in mm, angles in degrees */
    public function toArray(): array
    {
        $viewing = $this->display->viewing;
        $mmPerPx = 1 / $this->display->pxPerMm();
        $far = $viewing->farthestEyeMm();
        $led = $this->display->led;
        $needed = static fn (float $arcmin): array => [
            'cap_px' => Legibility::neededCapPx($arcmin, $mmPerPx, $far, $led),
            'cap_mm' => round(Legibility::neededCapPx($arcmin, $mmPerPx, $far, $led) * $mmPerPx, 2),
            'type_px' => (int) ceil(Legibility::neededCapPx($arcmin, $mmPerPx, $far, $led) / Legibility::CAP_SHARE),
        ];
        $slant = rad2deg(atan2($viewing->rise(), $viewing->nearestMm));

        return [
            'mm_per_px' => round($mmPerPx, 5),
            'viewing' => $viewing->toArray(),
            'size_mm' => $this->display->active()->toArray(),
            'usable_angle' => self::USABLE_ANGLE,
            'easy_slant' => self::EASY_SLANT,
            'slant_at_nearest' => round($slant, 1),
            'easy_from_mm' => round(abs($viewing->rise()) / tan(deg2rad(self::EASY_SLANT))),
            'comfortable' => $needed(Legibility::COMFORTABLE_ARCMIN),
            'limit' => $needed(Legibility::LIMIT_ARCMIN),
            'rule_of_thumb_mm' => round(Legibility::ruleOfThumbMm($far), 1),
            'least_share' => round($viewing->farthestMm / ($this->display->active()->height * self::AVIXA_FACTOR), 4),
            'led' => $led ? [
                'pitch_mm' => round($mmPerPx, 3),
                'comfortable_from_mm' => round($mmPerPx * 1000),
                'merges_at_mm' => round($mmPerPx * self::MERGE_FACTOR),
            ] : null,
            'text' => $this->capPx === null ? null : $this->text($this->capPx, $mmPerPx, $far),
        ];
    }

    /** @return array<string, mixed> */
    private function text(float $capPx, float $mmPerPx, float $far): array
    {
        $said = Legibility::of($mmPerPx, $capPx, $far);
        $tooFewPx = $this->display->led && $capPx < Legibility::LEAST_CAP_PX_LED;

        return [
            'cap_px' => $capPx,
            'cap_mm' => $said['cap_mm'],
            'arcmin_at_farthest' => $said['arcmin'],
            'verdict' => $tooFewPx ? 'unreadable' : $said['verdict'],
            'too_few_px' => $tooFewPx,
            'comfortable_to_mm' => round($this->floorMm(Legibility::distanceMm($capPx * $mmPerPx, Legibility::COMFORTABLE_ARCMIN))),
            'limit_to_mm' => round($this->floorMm(Legibility::distanceMm($capPx * $mmPerPx, Legibility::LIMIT_ARCMIN))),
        ];
    }
}
