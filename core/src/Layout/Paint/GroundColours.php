<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Paint;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\OwnGround;
use UpperPane\Core\Layout\Kind\Paints;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Media\Swatches;
use UpperPane\Core\Time\Item;

/**
 * What lies under a text: the background, and the shapes, pictures and zones below it in the stack, as colours at points of the canvas.
 *
 * What a zone plays changes: each of its items is a ground of its own. Layouts within a zone, and media that nobody has looked at, have no known colours.
 */
final readonly class GroundColours
{
    /** So many grounds of changing items are looked at, no more. */
    private const MOST = 60;

    /**
     * @param list<Paints> $below lowest first
     * @param list<list<PaintLayer>> $own what the element of the text itself paints below it, by turns
     */
    private function __construct(private Colour $background, private array $below, private ?Swatches $swatches, private array $own)
    {
    }

    public static function under(Text $text, Composed $layout, ?Swatches $swatches): self
    {
        [$below, $own] = [[], [[]]];
        foreach ($layout->elements as $element) {
            if ($element->id() === $text->id()) {
                $own = $element instanceof OwnGround ? $element->ownGrounds($text, $swatches) : $own;
                break;
            }
            if ($element instanceof Paints && !$element->isHidden() && $element->rect()->intersection($text->rect()) !== null) {
                // What lies under something opaque that is larger is not seen.
                $below = $element->isSolid() && $element->rect()->contains($text->rect()) ? [$element] : [...$below, $element];
            }
        }

        return new self($layout->background->over(Colour::black()), $below, $swatches, $own);
    }

    /**
     * The background, or one fill that lies under all of these boxes: the same at every point.
     *
     * @param \Closure(): list<Box> $boxes that are looked at, canvas px
     */
    public function plain(\Closure $boxes): ?Colour
    {
        if ($this->own !== [[]] || count($this->below) > 1) {
            return null;
        }
        $element = $this->below[0] ?? null;
        if ($element === null) {
            return $this->background;
        }
        $paint = $element->turns() === [] ? $element->paint(null, $this->swatches) ?? [] : [];
        $all = count($paint) === 1 && $paint[0]->isPlain() ? $boxes() : [];
        foreach ($all as $box) {
            if (!$paint[0]->covers($box)) {
                return null;
            }
        }

        return $all === [] ? null : $this->seen($paint, [[$all[0]->x, $all[0]->y]])[0];
    }

    /**
     * The colours at points, one list for each thing that can be seen there by turns.
     *
     * @param list<array{float, float}> $points canvas px
     * @return list<array{zone: ?string, item: ?string, name: ?string, colours: list<Colour>}> what is not known is left out
     */
    public function colours(array $points): array
    {
        if ($points === []) {
            return [];
        }
        $grounds = [];
        foreach ($this->turns() as [$zone, $item]) {
            $paint = $this->paint($zone, $item);
            if ($paint === null) {
                continue;
            }
            foreach ($this->own as $own) {
                $grounds[] = ['zone' => $zone?->id(), 'item' => $item?->id, 'name' => $item?->media?->name, 'colours' => $this->seen([...$paint, ...$own], $points)];
            }
        }

        return $grounds;
    }

    /** @return list<array{?Paints, ?Item}> an element and what it shows in this turn, all others showing their first */
    private function turns(): array
    {
        $turns = [];
        foreach ($this->below as $element) {
            foreach ($element->turns() as $item) {
                $turns[] = [$element, $item];
            }
        }

        return $turns === [] ? [[null, null]] : array_slice($turns, 0, self::MOST);
    }

    /** @return ?list<PaintLayer> lowest first; null where a layer has no known colours */
    private function paint(?Paints $turn, ?Item $due): ?array
    {
        $layers = [];
        foreach ($this->below as $element) {
            $own = $element->paint($element === $turn ? $due : null, $this->swatches);
            if ($own === null) {
                return null;
            }
            array_push($layers, ...$own);
        }

        return $layers;
    }

    /**
     * @param list<PaintLayer> $paint
     * @param list<array{float, float}> $points
     * @return list<Colour>
     */
    private function seen(array $paint, array $points): array
    {
        if ($paint === []) {
            return array_fill(0, count($points), $this->background);
        }
        $background = array_map(static fn (int $channel): float => (float) $channel, $this->background->channels());
        $colours = [];
        foreach ($points as [$x, $y]) {
            $rgb = $background;
            foreach ($paint as $layer) {
                $rgb = $layer->over($rgb, $x, $y);
            }
            $colours[] = Colour::rgb((int) round($rgb[0]), (int) round($rgb[1]), (int) round($rgb[2]));
        }

        return $colours;
    }
}
