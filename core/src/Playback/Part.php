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
     * @param string $kind that of the element, or background for the ground of a nested layout
     * @param ?string $item id of the playlist's item
     * @param Box $rect what clips it, canvas px
     * @param Box $drawn where the whole of it would lie, canvas px
     * @param array<string, mixed> $look text and style, or shape and fill
     * @param float $opacity of its own, 0 to 1
     * @param ?Box $of the element's own rectangle, where what is drawn is a part of it
     * @param array{row?: int, part?: string} $place which row of data it tells, and which part of the element it is
     */
    public function __construct(
        public string $element,
        public string $kind,
        public ?string $item,
        public ?Media $media,
        public Box $rect,
        public Box $drawn,
        public array $look = [],
        public float $opacity = 1.0,
        public ?Box $of = null,
        public ?Changing $changing = null,
        public array $place = [],
    ) {
    }

    /**
     * The same as a part of another element, which tells a row of data.
     *
     * @param Box $of the rectangle of that element, as far as it is seen
     */
    public function ownedBy(string $element, string $part, ?int $row, Box $of): self
    {
        $place = $row === null ? ['part' => $part] : ['row' => $row, 'part' => $part];

        return new self($element, $this->kind, $this->item, $this->media, $this->rect, $this->drawn, $this->look, $this->opacity, $of, $this->changing, $place);
    }

    /** The same without a sound. */
    public function mute(): self
    {
        return new self(
            $this->element,
            $this->kind,
            $this->item,
            $this->media,
            $this->rect,
            $this->drawn,
            array_diff_key($this->look, ['volume' => 1]),
            $this->opacity,
            $this->of,
            $this->changing,
            $this->place,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $array = ['element' => $this->element] + $this->place + ['kind' => $this->kind];
        if ($this->item !== null) {
            $array['item'] = $this->item;
        }
        if ($this->media !== null) {
            $array['media'] = $this->media->toArray();
        }

        return $array + ['rect' => $this->rect->toArray(), 'drawn' => $this->drawn->toArray()] + $this->look
            + ($this->opacity < 1.0 ? ['opacity' => $this->opacity] : [])
            + ($this->of === null ? [] : ['of' => $this->of->toArray()]);
    }
}
