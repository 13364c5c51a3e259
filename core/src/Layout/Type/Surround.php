<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Type;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Box;

/** What lies around letters: an outline of so many px outside their edges, or a plate that goes so many px beyond the words. */
final readonly class Surround
{
    private function __construct(public float $px, public Colour $color)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'px' => Field::number(0, 10_000, Role::Px)->required(),
            'color' => Field::colour()->required(),
        ])->named('Surround');
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());

        return new self($node->field('px')->number(0.0, 10_000, 'px'), Colour::fromNode($node->field('color')));
    }

    /** @return array{px: float|int, color: string} */
    public function toArray(float $scale = 1.0): array
    {
        return ['px' => Box::figure($this->px * $scale), 'color' => $this->color->hex];
    }
}
