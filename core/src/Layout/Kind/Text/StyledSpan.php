<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Text;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Box;

/** A part of a text that is set in another weight, size or colour: characters [from, to), counted in Unicode code points. */
final readonly class StyledSpan
{
    /** @param float $size of its type as a multiple of that of the text */
    private function __construct(public int $from, public int $to, public ?int $weight, public float $size, public ?Colour $color)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'from' => Field::int(0)->required(),
            'to' => Field::int(1)->required(),
            'weight' => Field::int(100, 900),
            'size' => Field::number(0.05, 20)->saying('of the type, as a multiple of that of the text'),
            'color' => Field::colour(),
        ])->named('Mark');
    }

    /**
     * @param int $length of the text, characters
     * @return list<self> in order, none over another
     * @throws DocumentRefused
     */
    public static function allFromNode(?Node $node, int $length): array
    {
        [$marks, $behind] = [[], 0];
        foreach ($node?->items(500) ?? [] as $one) {
            $one->object(...self::fields()->names());
            $from = $one->field('from')->int($behind, $length);
            $marks[] = new self(
                $from,
                $behind = $one->field('to')->int($from + 1, $length),
                $one->optional('weight')?->int(100, 900),
                $one->optional('size')?->number(0.05, 20.0, 'times the size of the text') ?? 1.0,
                ($color = $one->optional('color')) ? Colour::fromNode($color) : null,
            );
        }

        return $marks;
    }

    /** What is left of it in a text cut to so many characters; null for nothing. */
    public function cutAt(int $length): ?self
    {
        return $this->from >= $length ? null : new self($this->from, min($this->to, $length), $this->weight, $this->size, $this->color);
    }

    /**
     * @param float $sizePx of the text around it
     * @return array<string, mixed> as it is drawn
     */
    public function drawn(float $sizePx): array
    {
        return ['from' => $this->from, 'to' => $this->to] + array_filter([
            'weight' => $this->weight,
            'size_px' => $this->size === 1.0 ? null : Box::figure($this->size * $sizePx),
            'color' => $this->color?->hex,
        ], static fn (mixed $value): bool => $value !== null);
    }
}
