<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;

/** A raster in whole pixels, each side at least 1 px. */
final readonly class Size
{
    /** The longest side that is read, in px: far beyond any wall. */
    public const LONGEST = 1_000_000;

    private function __construct(public int $width, public int $height)
    {
    }

    /** @throws DocumentRefused when a side is under 1 px */
    public static function px(int $width, int $height): self
    {
        foreach (['width' => $width, 'height' => $height] as $side => $px) {
            if ($px < 1 || $px > self::LONGEST) {
                throw DocumentRefused::because(Reason::ValueRange, sprintf('The %s is %d px; 1 to %d px are right.', $side, $px, self::LONGEST), '/' . $side);
            }
        }

        return new self($width, $height);
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('width', 'height');

        return new self(
            $node->field('width')->int(1, self::LONGEST, 'px'),
            $node->field('height')->int(1, self::LONGEST, 'px'),
        );
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of(['width' => Field::int(1, self::LONGEST)->required(), 'height' => Field::int(1, self::LONGEST)->required()])->named('Size');
    }

    /** The same of a size that grows with what it is in. */
    public static function growing(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;
        $px = Field::int(1, self::LONGEST, Role::WholePx)->required();

        return $fields ??= Fields::of(['width' => $px, 'height' => $px])->named('Size');
    }

    /** The raster of a panel turned by a quarter: sides swapped. */
    public function swapped(): self
    {
        return new self($this->height, $this->width);
    }

    /** @return int in px */
    public function area(): int
    {
        return $this->width * $this->height;
    }

    public function equals(self $other): bool
    {
        return $this->width === $other->width && $this->height === $other->height;
    }

    public function isSquare(): bool
    {
        return $this->width === $this->height;
    }

    public function isPortrait(): bool
    {
        return $this->height > $this->width;
    }

    /** Largest relative difference of aspect that still counts as the same: 0.1 % (1366x768 is called 16:9). Common practice, no source. */
    public function sameAspectAs(self $other): bool
    {
        $a = $this->width * $other->height;
        $b = $this->height * $other->width;

        return abs($a - $b) <= 0.001 * max($a, $b);
    }

    /** @return array{width: int, height: int} */
    public function toArray(): array
    {
        return ['width' => $this->width, 'height' => $this->height];
    }

    public function __toString(): string
    {
        return "$this->width x $this->height";
    }
}
