<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Element;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Picture;
use UpperPane\Core\Layout\Zone;
use UpperPane\Core\Time\Item;

/** What is looked for in all that plays: a layout, a playlist or a media. */
final readonly class Sought
{
    /** @param 'layout'|'playlist'|'media' $kind */
    private function __construct(private string $kind, private string $id)
    {
    }

    public static function layout(string $id): self
    {
        return new self('layout', $id);
    }

    public static function playlist(string $id): self
    {
        return new self('playlist', $id);
    }

    public static function media(string $id): self
    {
        return new self('media', $id);
    }

    /** Whether the layout is it, a playlist over a whole raster too. */
    public function isLayout(Layout $layout): bool
    {
        return $this->kind !== 'media' && $layout->id === $this->id;
    }

    public function isPicture(Element $element): bool
    {
        return $this->kind === 'media' && $element instanceof Picture && $element->media->id === $this->id;
    }

    public function isListOf(Zone $zone): bool
    {
        return $this->kind === 'playlist' && ($zone->playlist->id === $this->id || $zone->playlist->interleaved === $this->id);
    }

    /** Whether the item itself plays it; what is in its layout is another matter. */
    public function isItem(Item $item): bool
    {
        return $this->kind === 'media' && $item->media?->id === $this->id;
    }

    /** Whether it stands anywhere in a layout, also where it is hidden or switched off. */
    public function isIn(Layout $layout): bool
    {
        if ($this->isLayout($layout)) {
            return true;
        }
        foreach ($layout->elements as $element) {
            if ($this->isPicture($element)) {
                return true;
            }
            foreach ($element instanceof Zone ? [...$element->playlist->all()] : [] as $item) {
                if ($element instanceof Zone && ($this->isListOf($element) || $this->isItem($item) || ($item->layout !== null && $this->isIn($element->layouts[$item->id])))) {
                    return true;
                }
            }
        }

        return false;
    }
}
