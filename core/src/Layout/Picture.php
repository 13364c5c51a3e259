<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\Item;

/** A still picture that is always there, outside any playlist. */
final readonly class Picture implements Element
{
    use ElementHead;

    public const KIND = 'picture';

    private function __construct(
        private string $id,
        private Rect $rect,
        public Media $media,
        public FitMode $fit,
        public float $focusX,
        public float $focusY,
    ) {
    }

    /** @throws DocumentRefused also for a film: films play in zones */
    public static function fromNode(Node $node): self
    {
        self::head($node, 'media', 'fit', 'focus');
        $media = Media::fromNode($node->field('media'));
        if ($media->isFilm()) {
            throw $node->field('media')->refused('value.unknown', sprintf('is the film "%s"; a film plays in a zone.', $media->name));
        }
        [$x, $y] = Item::focus($node->optional('focus'));

        return new self(
            $node->field('id')->id(),
            Rect::fromNode($node->field('rect')),
            $media,
            FitMode::from($node->optional('fit')?->oneOf(...FitMode::names()) ?? FitMode::Contain->value),
            $x,
            $y,
        );
    }

    public function kind(): string
    {
        return self::KIND;
    }

    public function covers(): bool
    {
        return true;
    }

    public function fitted(): Fit
    {
        return Fit::of($this->media->size, $this->rect->size(), $this->fit, $this->focusX, $this->focusY);
    }
}
