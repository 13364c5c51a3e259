<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\VolumeByHours;

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
     * @param array{row?: int, part?: string, overlay?: string} $place which row of data it tells, which part of the element it is, and of which overlay
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

    /** The same as a part of an overlay. */
    public function lyingOver(string $overlay): self
    {
        return new self(
            $this->element,
            $this->kind,
            $this->item,
            $this->media,
            $this->rect,
            $this->drawn,
            $this->look,
            $this->opacity,
            $this->of,
            $this->changing,
            ['overlay' => $overlay] + $this->place,
        );
    }

    /** The same, so loud of what it is: percent. */
    public function heard(int $percent): self
    {
        $loudness = $this->changing instanceof Loudness ? $this->changing->heard($percent) : $this->changing;
        $own = $this->look['volume'] ?? null;
        if ($percent === 100 || (!is_int($own) && $loudness === $this->changing)) {
            return $this;
        }
        $volume = is_int($own) ? VolumeByHours::share($own, $percent) : 0;

        return new self(
            $this->element,
            $this->kind,
            $this->item,
            $this->media,
            $this->rect,
            $this->drawn,
            ($volume > 0 ? ['volume' => $volume] : []) + array_diff_key($this->look, ['volume' => 1]),
            $this->opacity,
            $this->of,
            $percent === 0 && $this->changing instanceof Loudness ? null : $loudness,
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
