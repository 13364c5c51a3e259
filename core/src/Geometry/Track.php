<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

/** One track of a division: at least so many px or percent of the length, at most so many, or a share of what is left. */
final readonly class Track
{
    /**
     * @param float $fr share of what is left; 0 for none
     * @param string $written as one writes it
     */
    private function __construct(
        private float $leastPx,
        private float $leastPercent,
        private float $mostPx,
        private float $mostPercent,
        public float $fr,
        private string $written,
    ) {
    }

    public static function px(float|int $px): self
    {
        return new self((float) $px, 0.0, (float) $px, 0.0, 0.0, self::figure((float) $px) . 'px');
    }

    public static function percent(float $percent): self
    {
        return new self(0.0, $percent, 0.0, $percent, 0.0, self::figure($percent) . '%');
    }

    public static function fr(float|int $fr): self
    {
        return new self(0.0, 0.0, 0.0, 0.0, (float) $fr, self::figure((float) $fr) . 'fr');
    }

    /** `minmax(a, b)`: $least is of px or percent. */
    public static function between(self $least, self $most): self
    {
        return new self(
            $least->leastPx,
            $least->leastPercent,
            $most->mostPx,
            $most->mostPercent,
            $most->fr,
            "minmax($least->written, $most->written)",
        );
    }

    /** @return float px of a length */
    public function leastOf(int $length): float
    {
        return $this->leastPx + $this->leastPercent * $length / 100;
    }

    /** How far it grows before what is left is shared, px of a length; a flexible track does not grow by this. */
    public function mostOf(int $length): float
    {
        return max($this->leastOf($length), $this->mostPx + $this->mostPercent * $length / 100);
    }

    /** Whether it is of px in any part. */
    public function hasPx(): bool
    {
        return $this->leastPx > 0.0 || $this->mostPx > 0.0;
    }

    /** Whether it is a plain share of what is left. */
    public function isShare(): bool
    {
        return $this->fr > 0.0 && $this->leastPx === 0.0 && $this->leastPercent === 0.0;
    }

    /** Whether it is a plain number of px. */
    public function isPx(): bool
    {
        return $this->fr === 0.0 && $this->leastPercent === 0.0 && $this->mostPercent === 0.0 && $this->leastPx === $this->mostPx;
    }

    public function written(): string
    {
        return $this->written;
    }

    private static function figure(float $figure): string
    {
        return rtrim(rtrim(sprintf('%.6F', $figure), '0'), '.');
    }
}
