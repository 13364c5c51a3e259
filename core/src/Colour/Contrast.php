<?php

declare(strict_types=1);

namespace UpperPane\Core\Colour;

/** Whether one colour can be read on another: WCAG 2.2, 1.4.3 Contrast (Minimum). */
final readonly class Contrast
{
    public const NORMAL = 4.5;
    public const LARGE = 3.0;

    private function __construct(public float $ratio)
    {
    }

    /** @param Colour $text see-through text is mixed with its ground first; so is a ground, with black */
    public static function of(Colour $text, Colour $ground): self
    {
        $below = $ground->over(Colour::black());

        return new self($text->over($below)->contrast($below));
    }

    /** @return array{ratio: float, normal: bool, large: bool} as `bin/upperpane contrast` prints it */
    public function toArray(): array
    {
        return ['ratio' => round($this->ratio, 3), 'normal' => $this->ratio >= self::NORMAL, 'large' => $this->ratio >= self::LARGE];
    }
}
