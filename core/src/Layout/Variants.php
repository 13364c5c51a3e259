<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\UniqueIds;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;

/**
 * The versions of a layout for other orientations or aspects: they share its content, each has a canvas and an arrangement of its own.
 *
 * A variant names the elements that it shows, with their rectangles, and the size of their type where it is another; what it does not name it leaves out.
 */
final readonly class Variants
{
    private const MOST = 20;

    /**
     * @param Node $layout the whole layout
     * @return array<string, Layout> by id
     * @throws DocumentRefused
     */
    public static function fromNode(Node $layout, Library $library): array
    {
        $variants = [];
        $ids = new UniqueIds();
        foreach ($layout->optional('variants')?->items(self::MOST) ?? [] as $node) {
            $node->object('id', 'canvas', 'recipe', 'places', 'guides', 'safe');
            $ids->take($node->field('id'));
            try {
                $variants[$node->field('id')->id()] = Layout::fromArray(self::document($layout, $node), $library);
            } catch (DocumentRefused $e) {
                throw str_starts_with($e->path, $node->path) ? $e : $e->under($node->path);
            }
        }

        return $variants;
    }

    /**
     * The variant as a layout of its own.
     *
     * @return array<mixed>
     */
    private static function document(Node $layout, Node $variant): array
    {
        $places = $variant->field('places');
        /** @var array<string, array{rect: Rect, size_px: ?float}> $put */
        $put = [];
        $known = [];
        foreach ($layout->field('elements')->items() as $element) {
            $known[$element->field('id')->id()] = true;
        }
        foreach (is_array($places->value) ? array_keys($places->value) : [] as $id) {
            $place = $places->field((string) $id)->object('rect', 'size_px');
            if (!isset($known[$id])) {
                throw $place->refused('ref.unknown', 'is no element of this layout.');
            }
            $put[$id] = ['rect' => Rect::fromNode($place->field('rect')), 'size_px' => $place->optional('size_px')?->number(1, 100_000, 'px')];
        }
        $elements = [];
        foreach ($layout->field('elements')->items() as $element) {
            $place = $put[$element->field('id')->id()] ?? null;
            if ($place === null || !is_array($element->value)) {
                continue;
            }
            $arranged = array_replace($element->value, ['rect' => $place['rect']->toArray()]);
            if ($place['size_px'] !== null && is_array($arranged['style'] ?? null)) {
                $arranged['style']['size_px'] = $place['size_px'];
            }
            $leader = $arranged['follows'] ?? null;
            if (is_string($leader) && !isset($put[$leader])) {
                unset($arranged['follows']);
            }
            $elements[] = $arranged;
        }
        $document = is_array($layout->value) ? $layout->value : [];
        unset($document['variants'], $document['recipe'], $document['guides'], $document['safe']);

        return array_replace($document, ['canvas' => Size::fromNode($variant->field('canvas'))->toArray(), 'elements' => $elements])
            + array_filter(['recipe' => $variant->optional('recipe')?->value, 'guides' => $variant->optional('guides')?->value, 'safe' => $variant->optional('safe')?->value]);
    }
}
