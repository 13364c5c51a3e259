<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Style;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;

/** A type face of the house style: a family, and the weight in which it is set unless a text says otherwise. */
final readonly class NamedFace
{
    private function __construct(public string $family, public ?int $weight)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'family' => Field::text(1, 200, Role::Face)->required(),
            'weight' => Field::int(100, 900)->saying('in which it is set, unless a text says another'),
        ])->named('NamedFace');
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $family = $node->object('family', 'weight')->field('family');
        if ($family->styleName() !== null) {
            throw $family->refused(Reason::ValueRange, sprintf('is "%s"; the family itself stands here, and no name.', $family->text()));
        }

        return new self($family->text(), $node->optional('weight')?->int(100, 900));
    }
}
