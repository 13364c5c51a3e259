<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\Schedule\Played;

/** What plays in a zone, or instead of a playlist, whenever nothing of its list is due: a layout, a playlist or a media by its id, or a media as a whole. */
final readonly class Standby
{
    /** @param ?Media $media where it stands there as a whole */
    private function __construct(public ?Played $plays, public ?Media $media)
    {
    }

    public static function field(): Field
    {
        return Field::either(
            Field::object(Fields::of(['layout' => Field::either(
                Field::object(Fields::of(['ref' => Field::id(Role::LayoutId)->required()])),
                Field::id(Role::LayoutId),
            )->required()])),
            Field::object(Fields::of(['playlist' => Field::id(Role::PlaylistId)->required()])),
            Field::object(Fields::of(['media' => Field::either(Media::field(), Field::text(1, 200, Role::MediaId))->required()])),
        )->named('Standby');
    }

    /** @throws DocumentRefused unless it is one of them */
    public static function fromNode(Node $node): self
    {
        $media = $node->object('layout', 'playlist', 'media')->optional('media');
        if (is_array($media?->value) && !$node->has('layout') && !$node->has('playlist')) {
            return new self(null, Media::fromNode($media));
        }
        $layout = $node->optional('layout');
        if (is_array($layout?->value) && !$node->has('playlist') && $media === null) {
            return new self(Played::of('layout', $layout->object('ref')->field('ref')->id()), null);
        }

        return new self(Played::fromNode($node), null);
    }
}
