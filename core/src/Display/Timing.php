<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Geometry\Size;

/** A video timing: what an output sends so that a raster is refreshed so often. Horizontal figures in px, vertical in lines. */
final readonly class Timing
{
    /** What is calculated, px and Hz: below and above, the formulas say nothing that a display can use. Common practice, no source. */
    public const LEAST_SIDE = 64;
    public const LONGEST_SIDE = 16_384;
    public const LEAST_HZ = 10.0;
    public const MOST_HZ = 480.0;

    /** VESA CVT 1.2: the figures that its formulas are built on, in microseconds, lines, per cent and px. */
    private const MIN_SYNC_AND_BACK_US = 550.0;
    private const MIN_REDUCED_BLANK_US = 460.0;
    private const MIN_FRONT = 3;
    private const MIN_BACK = 7;
    private const BACK_OF_REDUCED2 = 6;
    private const SYNC_OF_REDUCED2 = 8;
    private const CELL = 8;
    private const CLOCK_STEP_MHZ = 0.25;
    private const CLOCK_STEP_OF_REDUCED2_MHZ = 0.001;

    private function __construct(
        public Size $raster,
        public int $clockKhz,
        public int $hFront,
        public int $hSync,
        public int $hBack,
        public int $vFront,
        public int $vSync,
        public int $vBack,
    ) {
    }

    /** A timing as it is told, by a panel for example. */
    public static function of(Size $raster, int $clockKhz, int $hFront, int $hSync, int $hBack, int $vFront, int $vSync, int $vBack): self
    {
        return new self($raster, $clockKhz, $hFront, $hSync, $hBack, $vFront, $vSync, $vBack);
    }

    /**
     * The timing that VESA CVT 1.2 calculates, as edid-decode reads it: sums are made with the width rounded down to 8 px (but for
     * reduced2), and the rest is active all the same.
     *
     * @param float $refreshHz pictures a second that are wanted; the clock is rounded down, so that a little less comes out
     */
    public static function cvt(Size $raster, float $refreshHz, Blanking $blanking = Blanking::Normal): self
    {
        return $blanking === Blanking::Normal ? self::normal($raster, $refreshHz) : self::reduced($raster, $refreshHz, $blanking);
    }

    public function hTotal(): int
    {
        return $this->raster->width + $this->hFront + $this->hSync + $this->hBack;
    }

    public function vTotal(): int
    {
        return $this->raster->height + $this->vFront + $this->vSync + $this->vBack;
    }

    /** Pictures a second that come out, Hz. */
    public function refreshHz(): float
    {
        return $this->clockKhz * 1000 / ($this->hTotal() * $this->vTotal());
    }

    /** @return array<string, int|float> */
    public function toArray(): array
    {
        return [
            'pixel_clock_khz' => $this->clockKhz,
            'h_total' => $this->hTotal(),
            'v_total' => $this->vTotal(),
            'h_front' => $this->hFront,
            'h_sync' => $this->hSync,
            'h_back' => $this->hBack,
            'v_front' => $this->vFront,
            'v_sync' => $this->vSync,
            'v_back' => $this->vBack,
            'refresh_hz' => round($this->refreshHz(), 6),
        ];
    }

    private static function normal(Size $raster, float $refreshHz): self
    {
        $width = intdiv($raster->width, self::CELL) * self::CELL;
        $lineUs = (1e6 / $refreshHz - self::MIN_SYNC_AND_BACK_US) / ($raster->height + self::MIN_FRONT);
        $vSync = self::syncLines($raster);
        $syncAndBack = max((int) floor(self::MIN_SYNC_AND_BACK_US / $lineUs) + 1, $vSync + self::MIN_BACK);
        // The ideal share of blanking in a line, per cent: C' - M' x line, with C' = 30 and M' = 300 per ms; at least 20.
        $share = max(20.0, 30.0 - 0.3 * $lineUs);
        $blank = (int) floor($width * $share / (100.0 - $share) / (2 * self::CELL)) * 2 * self::CELL;
        $total = $width + $blank;
        $hSync = intdiv((int) floor($total * 0.08), self::CELL) * self::CELL;

        return new self(
            $raster,
            self::clockKhz($total / $lineUs, self::CLOCK_STEP_MHZ),
            intdiv($blank, 2) - $hSync,
            $hSync,
            intdiv($blank, 2),
            self::MIN_FRONT,
            $vSync,
            $syncAndBack - $vSync,
        );
    }

    private static function reduced(Size $raster, float $refreshHz, Blanking $blanking): self
    {
        $second = $blanking === Blanking::Reduced2;
        $width = $second ? $raster->width : intdiv($raster->width, self::CELL) * self::CELL;
        [$hBlank, $hBack, $step] = $second ? [80, 40, self::CLOCK_STEP_OF_REDUCED2_MHZ] : [160, 80, self::CLOCK_STEP_MHZ];
        $vSync = $second ? self::SYNC_OF_REDUCED2 : self::syncLines($raster);
        $lineUs = (1e6 / $refreshHz - self::MIN_REDUCED_BLANK_US) / $raster->height;
        $least = $second ? 1 + $vSync + self::BACK_OF_REDUCED2 : self::MIN_FRONT + $vSync + self::MIN_BACK;
        $vBlank = max((int) floor(self::MIN_REDUCED_BLANK_US / $lineUs) + 1, $least);
        $vBack = $second ? self::BACK_OF_REDUCED2 : $vBlank - self::MIN_FRONT - $vSync;
        $hz = $refreshHz * ($vBlank + $raster->height) * ($width + $hBlank);

        return new self($raster, self::clockKhz($hz / 1e6, $step), $hBlank - 32 - $hBack, 32, $hBack, $vBlank - $vSync - $vBack, $vSync, $vBack);
    }

    /** Rounded down to the step; in MHz as edid-decode does it, so that a clock of whole kHz may come out 1 kHz lower. */
    private static function clockKhz(float $mhz, float $stepMhz): int
    {
        return (int) round(floor($mhz / $stepMhz) * $stepMhz * 1000);
    }

    /** Lines of the vertical sync tell the aspect of the picture. */
    private static function syncLines(Size $raster): int
    {
        $height = $raster->height;

        return match ($raster->width) {
            intdiv($height * 4, 3) => 4,
            intdiv($height * 16, 9) => 5,
            intdiv($height * 16, 10) => 6,
            $height % 4 === 0 ? intdiv($height * 5, 4) : -1, intdiv($height * 15, 9) => 7,
            default => 10,
        };
    }
}
