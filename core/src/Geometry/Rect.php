<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Role;

/** A rectangle in whole canvas pixels. It covers [x, right) and [y, bottom); it may lie outside any canvas. */
final readonly class Rect
{
    private function __construct(public int $x, public int $y, public int $width, public int $height)
    {
    }

    /** @throws DocumentRefused when a side is under 1 px */
    public static function at(int $x, int $y, int $width, int $height): self
    {
        Size::px($width, $height);

        return new self($x, $y, $width, $height);
    }

    public static function whole(Size $size): self
    {
        return new self(0, 0, $size->width, $size->height);
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('x', 'y', 'width', 'height');

        return new self(
            $node->field('x')->int(-Size::LONGEST, Size::LONGEST, 'px'),
            $node->field('y')->int(-Size::LONGEST, Size::LONGEST, 'px'),
            $node->field('width')->int(1, Size::LONGEST, 'px'),
            $node->field('height')->int(1, Size::LONGEST, 'px'),
        );
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'x' => Field::int()->required(),
            'y' => Field::int()->required(),
            'width' => Field::int(1, Size::LONGEST)->required(),
            'height' => Field::int(1, Size::LONGEST)->required(),
        ])->named('Rect');
    }

    /** The same of a rectangle that grows with what it is in. */
    public static function growing(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;
        $px = static fn (?int $least, ?int $most): Field => Field::int($least, $most, Role::WholePx)->required();

        return $fields ??= Fields::of(['x' => $px(null, null), 'y' => $px(null, null), 'width' => $px(1, Size::LONGEST), 'height' => $px(1, Size::LONGEST)])->named('Rect');
    }

    public function right(): int
    {
        return $this->x + $this->width;
    }

    public function bottom(): int
    {
        return $this->y + $this->height;
    }

    public function size(): Size
    {
        return Size::px($this->width, $this->height);
    }

    /** @return int in px */
    public function area(): int
    {
        return $this->width * $this->height;
    }

    public function intersection(self $other): ?self
    {
        $x = max($this->x, $other->x);
        $y = max($this->y, $other->y);
        $width = min($this->right(), $other->right()) - $x;
        $height = min($this->bottom(), $other->bottom()) - $y;

        return $width > 0 && $height > 0 ? new self($x, $y, $width, $height) : null;
    }

    public function contains(self $other): bool
    {
        return $this->x <= $other->x && $this->y <= $other->y
            && $this->right() >= $other->right() && $this->bottom() >= $other->bottom();
    }

    public function equals(self $other): bool
    {
        return $this->x === $other->x && $this->y === $other->y
            && $this->width === $other->width && $this->height === $other->height;
    }

    /** @return array{x: int, y: int, width: int, height: int} */
    public function toArray(): array
    {
        return ['x' => $this->x, 'y' => $this->y, 'width' => $this->width, 'height' => $this->height];
    }
}
