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
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;

/** How a text is set: face, size in canvas px, weight 100 to 900, colour, alignment, line height as a multiple of the size; outline, plate and shadow. */
final readonly class TextStyle
{
    /** In which words are set that say no family. */
    public const FAMILY = 'Inter';
    public const WEIGHT = 400;

    private function __construct(
        public string $family,
        public float $sizePx,
        public int $weight,
        public Colour $color,
        public string $align,
        public string $valign,
        public float $lineHeight,
        public ?Surround $outline,
        public ?Surround $plate,
        public ?Shadow $shadow,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'family' => Field::text(1, 200, Role::Face),
            'size_px' => Field::typeSize()->required(),
            'weight' => Field::int(100, 900),
            'color' => Field::colour(),
            'align' => Field::oneOf('start', 'center', 'end'),
            'valign' => Field::oneOf('top', 'middle', 'bottom'),
            'line_height' => Field::number(0.5, 5),
            'outline' => Field::object(Surround::fields()),
            'plate' => Field::object(Surround::fields()),
            'shadow' => Field::object(Shadow::fields()),
        ])->named('Style');
    }

    public static function field(): Field
    {
        return Field::object(self::fields(), Role::Type);
    }

    /**
     * White type of the house that takes up a share of a box, and no more than a twelfth of the canvas is high.
     *
     * @return array<string, mixed>
     */
    public static function begun(Rect $rect, Size $canvas, float $share): array
    {
        return ['family' => self::FAMILY, 'size_px' => max(12, (int) round(min($share * $rect->height, $canvas->height / 12))), 'weight' => 600, 'color' => '#ffffff'];
    }

    /**
     * @param array<string, mixed> $fields as they stand in a document
     * @throws DocumentRefused
     */
    public static function of(array $fields): self
    {
        return self::fromNode(Node::root($fields));
    }

    /**
     * What the house style names stands for something until that is known (Layout\Style): type of 1 px, in the first face of the house.
     *
     * @throws DocumentRefused
     */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        [$family, $size] = [$node->optional('family'), $node->field('size_px')];

        return new self(
            $family === null || $family->styleName() !== null ? self::FAMILY : $family->text(),
            $size->styleName() !== null ? 1.0 : $size->number(1, 100_000, 'px'),
            $node->optional('weight')?->int(100, 900) ?? self::WEIGHT,
            ($color = $node->optional('color')) ? Colour::fromNode($color) : Colour::black(),
            $node->optional('align')?->oneOf('start', 'center', 'end') ?? 'start',
            $node->optional('valign')?->oneOf('top', 'middle', 'bottom') ?? 'top',
            $node->optional('line_height')?->number(0.5, 5.0) ?? 1.2,
            ($outline = $node->optional('outline')) ? Surround::fromNode($outline) : null,
            ($plate = $node->optional('plate')) ? Surround::fromNode($plate) : null,
            ($shadow = $node->optional('shadow')) ? Shadow::fromNode($shadow) : null,
        );
    }

    /** The same in another size, px; outline, plate and shadow stay. */
    public function sized(float $sizePx): self
    {
        return new self($this->family, $sizePx, $this->weight, $this->color, $this->align, $this->valign, $this->lineHeight, $this->outline, $this->plate, $this->shadow);
    }

    /** The same elsewhere in its box. */
    public function aligned(string $align, string $valign): self
    {
        return new self($this->family, $this->sizePx, $this->weight, $this->color, $align, $valign, $this->lineHeight, $this->outline, $this->plate, $this->shadow);
    }

    public function coloured(Colour $color): self
    {
        return new self($this->family, $this->sizePx, $this->weight, $color, $this->align, $this->valign, $this->lineHeight, $this->outline, $this->plate, $this->shadow);
    }

    /** @return array<string, mixed> as it stands in a layout, its px scaled */
    public function toArray(float $scale = 1.0): array
    {
        return [
            'family' => $this->family,
            'size_px' => Box::figure($this->sizePx * $scale),
            'weight' => $this->weight,
            'color' => $this->color->hex,
            'align' => $this->align,
            'valign' => $this->valign,
            'line_height' => $this->lineHeight,
        ] + array_filter([
            'outline' => $this->outline?->toArray($scale),
            'plate' => $this->plate?->toArray($scale),
            'shadow' => $this->shadow?->toArray($scale),
        ]);
    }
}
