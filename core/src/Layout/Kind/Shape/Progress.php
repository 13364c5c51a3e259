<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Shape;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Role;

/** That a shape fills up from one side as a zone goes through its item, or through its loop. */
final readonly class Progress
{
    /**
     * @param string $zone id
     * @param 'item'|'loop' $of
     * @param 'left'|'right'|'top'|'bottom' $from the side at which it begins
     */
    private function __construct(public string $zone, public string $of, public string $from)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'zone' => Field::id(Role::Element)->required(),
            'of' => Field::oneOf('item', 'loop'),
            'from' => Field::oneOf('left', 'right', 'top', 'bottom'),
        ])->named('Progress');
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());

        return new self(
            $node->field('zone')->id(),
            ($node->optional('of')?->oneOf('item', 'loop') ?? 'item') === 'loop' ? 'loop' : 'item',
            match ($node->optional('from')?->oneOf('left', 'right', 'top', 'bottom') ?? 'left') {
                'right' => 'right',
                'top' => 'top',
                'bottom' => 'bottom',
                default => 'left',
            },
        );
    }

    /** @return array{zone: string, of: string, from: string} of a zone that is called so on the way to it */
    public function toArray(string $zone): array
    {
        return ['zone' => $zone, 'of' => $this->of, 'from' => $this->from];
    }
}
