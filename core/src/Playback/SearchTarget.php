<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\HasMedia;
use UpperPane\Core\Layout\Kind\Nests;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\Item;

/** What is looked for in all that plays: a layout, a playlist or a media. */
final readonly class SearchTarget
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
    public function isLayout(Composed $layout): bool
    {
        return $this->kind !== 'media' && $layout->id === $this->id;
    }

    public function isListOf(PlayingZone $zone): bool
    {
        return $this->kind === 'playlist' && ($zone->playlist->id === $this->id || $zone->playlist->interleaved === $this->id);
    }

    /** Whether the item itself plays it; what is in its layout is another matter. */
    public function isItem(Item $item): bool
    {
        return $this->kind === 'media' && $item->media?->id === $this->id;
    }

    /** Whether an element shows it at every instant, as a picture outside any list does. */
    public function isAlwaysIn(Element $element): bool
    {
        return $this->kind === 'media' && $element instanceof HasMedia && !$element instanceof Nests
            && array_filter($element->media(), fn (Media $media): bool => $media->id === $this->id) !== [];
    }

    /** Whether an item of a zone plays it, or what is in it. */
    public function isPlayedBy(PlayingZone $zone, Item $item): bool
    {
        return $this->isListOf($zone) || $this->isItem($item) || ($item->layout !== null && $this->isIn($zone->layouts[$item->id]));
    }

    /** Whether it stands anywhere in a layout, also where it is hidden or switched off. */
    public function isIn(Composed $layout): bool
    {
        if ($this->isLayout($layout)) {
            return true;
        }
        foreach ($layout->elements as $element) {
            if ($this->isAlwaysIn($element)) {
                return true;
            }
        }
        foreach (PlayingZone::among($layout->elements) as $zone) {
            foreach ($zone->playlist->all() as $item) {
                if ($this->isPlayedBy($zone, $item)) {
                    return true;
                }
            }
            if ($zone->standby !== null && $this->isIn($zone->standby)) {
                return true;
            }
        }

        return false;
    }
}
