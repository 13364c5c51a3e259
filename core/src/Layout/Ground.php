<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Media\Pixels;
use UpperPane\Core\Time\Item;

/**
 * What lies under a text: the background, and the shapes, pictures and zones below it in the stack, as colours at points of the canvas.
 *
 * What a zone plays changes: each of its items is a ground of its own. Layouts within a zone, and media that nobody has looked at, have no known colours.
 */
final readonly class Ground
{
    /** So many grounds of changing items are looked at, no more. */
    private const MOST = 60;

    /** @param list<Element> $below lowest first */
    private function __construct(private Colour $background, private array $below, private ?Pixels $pixels)
    {
    }

    public static function under(Text $text, Layout $layout, ?Pixels $pixels): self
    {
        $below = [];
        foreach ($layout->elements as $element) {
            if ($element->id() === $text->id()) {
                break;
            }
            if (!$element instanceof Worded && !$element->isHidden() && $element->rect()->intersection($text->rect()) !== null) {
                // What lies under something opaque that is larger is not seen.
                $below = $element instanceof Shape && $element->covers() && $element->rect()->contains($text->rect()) ? [$element] : [...$below, $element];
            }
        }

        return new self($layout->background->over(Colour::black()), $below, $pixels);
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
            $coats = $this->coats($zone, $item);
            if ($coats !== null) {
                $grounds[] = ['zone' => $zone?->id(), 'item' => $item?->id, 'name' => $item?->media?->name, 'colours' => $this->seen($coats, $points)];
            }
        }

        return $grounds;
    }

    /** @return list<array{?Zone, ?Item}> a zone and the item that it shows in this turn, all others showing their first */
    private function turns(): array
    {
        $turns = [];
        foreach ($this->below as $element) {
            if ($element instanceof Zone) {
                foreach ($element->playlist->enabled() as $item) {
                    $turns[] = [$element, $item];
                }
            }
        }

        return $turns === [] ? [[null, null]] : array_slice($turns, 0, self::MOST);
    }

    /** @return ?list<Coat> lowest first; null where a layer has no known colours */
    private function coats(?Zone $turn, ?Item $due): ?array
    {
        $coats = [];
        foreach ($this->below as $element) {
            if ($element instanceof Shape) {
                $coats[] = Coat::ofShape($element);
                continue;
            }
            if (($element instanceof Picture || $element instanceof Zone) && $element->ground !== null) {
                $coats[] = Coat::ofFill($element->rect(), $element->ground);
            }
            if ($element instanceof Picture) {
                $swatch = $this->pixels?->of($element->media);
                if ($swatch === null) {
                    return null;
                }
                $coats[] = Coat::ofPicture($element, $swatch);
                continue;
            } elseif ($element instanceof Zone) {
                $item = $element === $turn ? $due : ($element->playlist->enabled()[0] ?? null);
                if ($item === null) {
                    continue;
                }
                $media = $item->media;
                $fit = $media === null ? null : Fit::of($media->size, $element->rect()->size(), $item->fit, $item->focusX, $item->focusY);
            } else {
                continue;
            }
            $swatch = $media === null ? null : $this->pixels?->of($media);
            if ($swatch === null || $fit === null) {
                return null;
            }
            $coats[] = Coat::ofItem($element->rect(), $fit, $swatch);
        }

        return $coats;
    }

    /**
     * @param list<Coat> $coats
     * @param list<array{float, float}> $points
     * @return list<Colour>
     */
    private function seen(array $coats, array $points): array
    {
        if ($coats === []) {
            return array_fill(0, count($points), $this->background);
        }
        $background = array_map(static fn (int $channel): float => (float) $channel, $this->background->channels());
        $colours = [];
        foreach ($points as [$x, $y]) {
            $rgb = $background;
            foreach ($coats as $coat) {
                $rgb = $coat->over($rgb, $x, $y);
            }
            $colours[] = Colour::rgb((int) round($rgb[0]), (int) round($rgb[1]), (int) round($rgb[2]));
        }

        return $colours;
    }
}
