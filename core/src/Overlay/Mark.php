<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Media\Media;

/** A picture in a corner. */
final readonly class Mark implements Kind
{
    private const CORNERS = ['top-left', 'top-right', 'bottom-left', 'bottom-right'];

    /**
     * @param float $size its height, as a share of the shorter side
     * @param float $inset away from both edges, as a share of the shorter side
     * @param float $opacity 0 to 1
     */
    private function __construct(public Media $media, private string $corner, private float $size, private float $inset, public float $opacity)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'media' => Media::field()->required(),
            'corner' => Field::oneOf(...self::CORNERS)->required(),
            'size' => Field::number(0, 1)->required()->saying('its height, as a share of the shorter side of the canvas'),
            'inset' => Field::number(0, 1)->saying('away from both edges, as a share of the shorter side of the canvas'),
            'opacity' => Field::number(0, 1),
        ]);
    }

    public static function fromNode(Node $node): self
    {
        $size = $node->field('size');
        $media = Media::fromNode($node->field('media'));
        if ($media->isFilm()) {
            throw $node->field('media')->refused(Reason::ValueUnknown, 'is a film; a mark is a picture.');
        }

        return new self(
            $media,
            $node->field('corner')->oneOf(...self::CORNERS),
            $size->number(0.0, 1.0) > 0.0 ? $size->number(0.0, 1.0) : throw $size->refused(Reason::ValueRange, 'is 0; then nobody sees it.'),
            $node->optional('inset')?->number(0.0, 1.0) ?? 0.0,
            $node->optional('opacity')?->number(0.0, 1.0) ?? 1.0,
        );
    }

    public static function mayFollow(): bool
    {
        return false;
    }

    public function elsewhere(): array
    {
        return Elsewhere::but($this->corner, 'corner', self::CORNERS);
    }

    /** @param Size $source of its media, px */
    public function rect(Room $room, Size $source): Rect
    {
        $height = $this->size * $room->shorter();
        [$high, $along] = explode('-', $this->corner);

        return $room->at(
            $high === 'top' ? 'top' : 'bottom',
            $along === 'left' ? 'left' : 'right',
            max(1, Room::px($height * $source->width / $source->height)),
            max(1, Room::px($height)),
            Room::px($this->inset * $room->shorter()),
        );
    }
}
