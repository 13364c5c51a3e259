<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Shape;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Kind\ElementHead;
use UpperPane\Core\Layout\Kind\Head;
use UpperPane\Core\Layout\Kind\Paints;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Paint\PaintLayer;
use UpperPane\Core\Media\Swatches;
use UpperPane\Core\Time\Item;

/** A filled rectangle, its corners rounded by so many px, or an ellipse; it may fill up as a zone goes on. */
final readonly class Shape implements WrittenElement, Paints
{
    use ElementHead;

    public const KIND = 'shape';

    private function __construct(
        private Head $head,
        public string $shape,
        public Colour $fill,
        public float $radiusPx,
        public ?Progress $progress,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'shape' => Field::oneOf('rectangle', 'ellipse'),
            'fill' => Field::colour()->required(),
            'radius_px' => Field::number(0, 100_000, Role::Px),
            'progress' => Field::object(Progress::fields())->saying('fills up from one side as a zone goes through its item or its loop'),
        ]);
    }

    public static function begun(Rect $rect, Size $canvas): array
    {
        return ['fill' => '#14665b'];
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): static
    {
        $head = Head::fromNode($node, self::fields());

        return new self(
            $head,
            $node->optional('shape')?->oneOf('rectangle', 'ellipse') ?? 'rectangle',
            Colour::fromNode($node->field('fill')),
            $node->optional('radius_px')?->number(0.0, 100_000, 'px') ?? 0.0,
            ($progress = $node->optional('progress')) ? Progress::fromNode($progress) : null,
        );
    }

    public function covers(): bool
    {
        return $this->progress === null && $this->shape === 'rectangle' && $this->radiusPx === 0.0 && $this->fill->isOpaque();
    }

    public function turns(): array
    {
        return [];
    }

    public function paint(?Item $due, ?Swatches $swatches): array
    {
        return [PaintLayer::ofFill($this->rect(), $this->fill, $this->shape === 'ellipse')];
    }

    public function isSolid(): bool
    {
        return $this->covers();
    }
}
