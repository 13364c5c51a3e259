<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Report;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;

/** One thing that is wrong on a player, and with which element and item of what is shown, where it is with one. */
final readonly class Trouble
{
    public function __construct(public string $of, public string $says, public ?string $element = null, public ?string $item = null)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields */
        static $fields;

        return $fields ??= Fields::of([
            'of' => Field::text(1, 2100)->required()->saying('what it concerns, by a name that stays the same'),
            'says' => Field::text(1, 2000)->required(),
            'element' => Field::text(1, 2000)->saying('on the way through nested layouts, as in run sheets'),
            'item' => Field::text(1, 200)->orNull(),
        ])->named('Trouble');
    }

    /** @throws DocumentRefused */
    public static function read(Node $node): self
    {
        $node->object(...self::fields()->names());

        return new self(
            $node->field('of')->text(1, 2100),
            Report::shortened($node->field('says')->text(1, 2000)),
            $node->given('element')?->text(1, 2000),
            $node->given('item')?->text(1, 200),
        );
    }

    /** @return array<string, string> */
    public function toArray(): array
    {
        return ['of' => $this->of, 'says' => $this->says]
            + ($this->element === null ? [] : ['element' => $this->element])
            + ($this->item === null ? [] : ['item' => $this->item]);
    }
}
