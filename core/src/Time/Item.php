<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Media\Media;

/** One thing in a playlist: a picture, a film, or a layout known here by name only. */
final readonly class Item
{
    /**
     * @param ?Media $media null where the item is a layout
     * @param ?Node $layout the node of the nested layout: `{"ref": id}` or the document itself
     * @param ?int $durationMs as stated; null where it follows from `lasts` or the content
     * @param int $fadeMs length of the fade in from the item before, inside the duration; 0 for a cut
     */
    private function __construct(
        public string $id,
        public ?Media $media,
        public ?Node $layout,
        public ?int $durationMs,
        public ?Lasts $lasts,
        public FitMode $fit,
        public float $focusX,
        public float $focusY,
        public bool $enabled,
        public int $fadeMs,
    ) {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('id', 'media', 'layout', 'duration_ms', 'lasts', 'fit', 'focus', 'enabled', 'weight', 'volume', 'transition', 'valid');
        foreach (['weight' => 1, 'volume' => 0] as $later => $default) {
            if (($field = $node->optional($later)) && $field->number() !== (float) $default) {
                throw $field->refused('kind.unbuilt', "other than $default is not played yet.");
            }
        }
        if ($valid = $node->optional('valid')) {
            throw $valid->refused('kind.unbuilt', 'is not read yet; leave the field out.');
        }
        $layout = $node->optional('layout');
        if ($layout !== null && $node->has('media')) {
            throw $layout->refused('field.unknown', 'stands beside a media; an item is one or the other.');
        }
        $media = $layout === null ? Media::fromNode($node->field('media')) : null;
        $durationMs = $node->optional('duration_ms')?->int(1, unit: 'ms');
        $lasts = ($field = $node->optional('lasts')) ? Lasts::from($field->oneOf('own', 'leader', 'endless')) : null;
        if ($media !== null && !$media->isFilm() && $durationMs === null && in_array($lasts, [null, Lasts::Own], true)) {
            throw $lasts === null
                ? self::missing($node, sprintf('is missing: the picture "%s" has no length of its own.', $media->name))
                : $node->field('lasts')->refused('value.unknown', sprintf('is "own", but the picture "%s" has no length of its own.', $media->name));
        }
        [$focusX, $focusY] = self::focus($node->optional('focus'));

        return new self(
            $node->field('id')->id(),
            $media,
            $layout,
            $durationMs,
            $lasts,
            FitMode::from($node->optional('fit')?->oneOf(...FitMode::names()) ?? FitMode::Contain->value),
            $focusX,
            $focusY,
            $node->optional('enabled')?->bool() ?? true,
            self::fadeMs($node->optional('transition'), $durationMs ?? $media?->lengthMs),
        );
    }

    /** A whole picture or film as an item of its own; a picture stays without end. */
    public static function ofMedia(Media $media): self
    {
        return new self('i1', $media, null, null, $media->isFilm() ? Lasts::Own : Lasts::Endless, FitMode::Contain, 50.0, 50.0, true, 0);
    }

    /**
     * @return array{float, float} object-position in percent
     * @throws DocumentRefused
     */
    public static function focus(?Node $node): array
    {
        if ($node === null) {
            return [50.0, 50.0];
        }
        $pair = $node->items(2);
        if (count($pair) !== 2) {
            throw $node->refused('value.range', 'has one figure; a focus is two, x and y in percent.');
        }

        return [$pair[0]->number(0.0, 100.0, '%'), $pair[1]->number(0.0, 100.0, '%')];
    }

    private static function missing(Node $node, string $message): DocumentRefused
    {
        return DocumentRefused::because('field.missing', "$node->path/duration_ms $message", "$node->path/duration_ms");
    }

    private static function fadeMs(?Node $node, ?int $durationMs): int
    {
        if ($node === null) {
            return 0;
        }
        $node->object('kind', 'ms');
        $kind = $node->field('kind');
        if (in_array($kind->oneOf('cut', 'fade', 'push', 'wipe'), ['push', 'wipe'], true)) {
            throw $kind->refused('kind.unbuilt', sprintf('is "%s", which is not played yet; cut and fade are.', $kind->text()));
        }
        $ms = $node->optional('ms');
        $length = $ms?->int(0, 60_000, 'ms') ?? 500;
        if ($kind->text() === TransitionKind::Cut->value) {
            return 0;
        }
        if ($durationMs !== null && $length > $durationMs) {
            throw ($ms ?? $node)->refused('value.range', sprintf('is %d ms, longer than the item, which lasts %d ms; a transition lies inside the duration.', $length, $durationMs));
        }

        return $length;
    }
}
