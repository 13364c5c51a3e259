<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;

/** What every slot has. */
final readonly class SlotHead
{
    private function __construct(public string $id, public string $name, public string $hint, public bool $isRequired)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'id' => Field::id()->required(),
            'name' => Field::name()->required(),
            'kind' => Field::oneOf(...Slots::kinds())->required(),
            'hint' => Field::text(0, 500)->saying('for whoever fills it in'),
            'required' => Field::bool()->saying('whether it has to be filled in'),
        ]);
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node, Fields $own): self
    {
        $node->object(...self::fields()->names(), ...$own->names());

        return new self(
            $node->field('id')->id(),
            $node->field('name')->name(),
            $node->optional('hint')?->text(0, 500) ?? '',
            $node->optional('required')?->bool() ?? false,
        );
    }
}
