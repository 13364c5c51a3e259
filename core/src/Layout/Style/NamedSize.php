<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Style;

use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Size;

/** A size of type of the house style: px of the canvas, a share of its height, or the angle under which the farthest viewer sees a capital. */
final readonly class NamedSize
{
    public const PX = 'px';
    public const SHARE = 'share';
    public const ARCMIN = 'arcmin';

    /** An angle as large as the display itself is hardly type any more. */
    private const MOST_ARCMIN = 6_000;

    /** @param self::PX|self::SHARE|self::ARCMIN $unit */
    private function __construct(public string $unit, public float $value)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            self::PX => Field::number(1, 100_000)->saying('of the canvas'),
            self::SHARE => Field::number(0, 1)->saying('of the height of the canvas on which it stands'),
            self::ARCMIN => Field::number(0, self::MOST_ARCMIN)->saying('of a capital, as the farthest viewer of the display sees it'),
        ])->named('NamedSize')->where(['minProperties' => 1, 'maxProperties' => 1]);
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object(self::PX, self::SHARE, self::ARCMIN);
        if (count($node->members()) > 1) {
            throw $node->refused(Reason::FieldUnknown, 'says more than one size; px, share or arcmin alone is right.');
        }
        foreach ([self::SHARE => 1.0, self::ARCMIN => (float) self::MOST_ARCMIN] as $unit => $most) {
            $field = $node->optional($unit);
            if ($field !== null) {
                $value = $field->number(0.0, $most);

                return new self($unit, $value > 0.0 ? $value : throw $field->refused(Reason::ValueRange, 'is 0; it must be above 0.'));
            }
        }

        return new self(self::PX, $node->field(self::PX)->number(1.0, 100_000, 'px'));
    }

    /**
     * @param Size $canvas on which the words stand
     * @param float $mmPerPx of that canvas on its display
     * @param float $farthestMm from the eye of the farthest viewer to the middle of the display
     * @param float $capShare height of a capital over the size of its type
     * @return int px of the canvas: px and shares to the nearest, halves up; arc minutes up to the next; at least 1
     */
    public function px(Size $canvas, float $mmPerPx, float $farthestMm, float $capShare): int
    {
        return max(1, (int) match ($this->unit) {
            self::PX => floor(round($this->value, 9) + 0.5),
            self::SHARE => floor(round($this->value * $canvas->height, 9) + 0.5),
            self::ARCMIN => ceil(round(Legibility::capMm($this->value, $farthestMm) / $mmPerPx / $capShare, 9)),
        });
    }
}
