<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Type;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Box;

/** The shadow of letters: moved by so many px, blurred over so many (CSS Text Decoration 3, text-shadow). */
final readonly class Shadow
{
    private function __construct(public float $xPx, public float $yPx, public float $blurPx, public Colour $color)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'x_px' => Field::number(-10_000, 10_000, Role::Px),
            'y_px' => Field::number(-10_000, 10_000, Role::Px),
            'blur_px' => Field::number(0, 10_000, Role::Px),
            'color' => Field::colour()->required(),
        ])->named('Shadow');
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());

        return new self(
            $node->optional('x_px')?->number(-10_000, 10_000, 'px') ?? 0.0,
            $node->optional('y_px')?->number(-10_000, 10_000, 'px') ?? 0.0,
            $node->optional('blur_px')?->number(0.0, 10_000, 'px') ?? 0.0,
            Colour::fromNode($node->field('color')),
        );
    }

    /** @return array{x_px: float|int, y_px: float|int, blur_px: float|int, color: string} */
    public function toArray(float $scale = 1.0): array
    {
        return [
            'x_px' => Box::figure($this->xPx * $scale),
            'y_px' => Box::figure($this->yPx * $scale),
            'blur_px' => Box::figure($this->blurPx * $scale),
            'color' => $this->color->hex,
        ];
    }
}
