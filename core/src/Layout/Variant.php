<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Division\Recipe;

/**
 * A version of a layout for another orientation or aspect: it shares the content, and has a canvas and an arrangement of its own.
 *
 * It names the elements that it shows, with their rectangles, and the size of their type where it is another; what it does not name it leaves out.
 */
final readonly class Variant
{
    public const MOST = 20;

    /**
     * @param array<string, array{rect: Rect, size_px: float|string|null}> $places by id of the element
     * @param array<string, mixed> $given as it stands in its layout
     */
    private function __construct(public string $id, public Size $canvas, public ?Recipe $recipe, public array $places, public Guides $guides, private array $given)
    {
    }

    /** @param array<string, array{rect: Rect, size_px: float|string|null}> $places by id of the element */
    public static function of(string $id, Size $canvas, ?Recipe $recipe, array $places, Guides $guides): self
    {
        return new self($id, $canvas, $recipe, $places, $guides, [
            'id' => $id,
            'canvas' => $canvas->toArray(),
            'places' => array_map(
                static fn (array $place): array => ['rect' => $place['rect']->toArray()]
                    + ($place['size_px'] === null ? [] : ['size_px' => is_string($place['size_px']) ? $place['size_px'] : Box::figure($place['size_px'])]),
                $places,
            ),
        ] + ($recipe === null ? [] : ['recipe' => $recipe->toArray()]) + $guides->toArray());
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'id' => Field::id()->required(),
            'canvas' => Field::object(Size::fields())->required(),
            'recipe' => Field::object(Recipe::fields()),
            'places' => Field::map(Field::object(Fields::of([
                'rect' => Field::object(Rect::fields())->required(),
                'size_px' => Field::either(Field::number(1, 100_000), Field::pattern(Field::STYLE_NAME)),
            ])->named('Place')))->required(),
        ])->named('Variant')->and(Guides::fields()->all());
    }

    /**
     * @param array<string, true> $known ids of the elements of the layout
     * @throws DocumentRefused
     */
    public static function fromNode(Node $node, array $known): self
    {
        $node->object(...self::fields()->names());
        /** @var array<string, mixed> $given an object has names */
        $given = is_array($node->value) ? $node->value : [];
        $places = [];
        foreach ($node->field('places')->members(Layout::MOST_ELEMENTS) as $id => $place) {
            $place->object('rect', 'size_px');
            if (!isset($known[$id])) {
                throw $place->refused(Reason::RefUnknown, 'is no element of this layout.');
            }
            $size = $place->optional('size_px');
            $named = $size?->styleName();
            $places[$id] = ['rect' => Rect::fromNode($place->field('rect')), 'size_px' => $named === null ? $size?->number(1, 100_000, 'px') : "@$named"];
        }

        return new self(
            $node->field('id')->id(),
            Size::fromNode($node->field('canvas')),
            ($recipe = $node->optional('recipe')) ? Recipe::fromNode($recipe) : null,
            $places,
            Guides::fromNode($node),
            $given,
        );
    }

    /** The same without the places of elements that are not among these. */
    public function among(string ...$ids): self
    {
        $places = is_array($this->given['places'] ?? null) ? $this->given['places'] : [];

        return new self(
            $this->id,
            $this->canvas,
            $this->recipe,
            array_intersect_key($this->places, array_flip($ids)),
            $this->guides,
            array_replace($this->given, ['places' => array_intersect_key($places, array_flip($ids))]),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return self::fields()->written($this->given);
    }
}
