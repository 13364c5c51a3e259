<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Media\Media;

/** What can be drawn, apart from when: the same at every instant at which it is shown. */
final readonly class Part
{
    /**
     * @param string $element id of the element; inside nested layouts the ids of the way, `outer/inner`
     * @param string $kind zone, text, picture, shape, or background for the ground of a nested layout
     * @param ?string $item id of the playlist's item
     * @param Box $rect what clips it, canvas px
     * @param Box $drawn where the whole of it would lie, canvas px
     * @param array<string, mixed> $look text and style, or shape and fill
     */
    public function __construct(
        public string $element,
        public string $kind,
        public ?string $item,
        public ?Media $media,
        public Box $rect,
        public Box $drawn,
        public array $look = [],
    ) {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $array = ['element' => $this->element, 'kind' => $this->kind];
        if ($this->item !== null) {
            $array['item'] = $this->item;
        }
        if ($this->media !== null) {
            $array['media'] = $this->media->toArray();
        }

        return $array + ['rect' => $this->rect->toArray(), 'drawn' => $this->drawn->toArray()] + $this->look;
    }
}
