<?php

declare(strict_types=1);

namespace UpperPane\Core\Setting;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;

/** What a place makes of a list that comes from above: only these, or some less and some more. */
final readonly class ListChange
{
    private const MOST = 500;

    /**
     * @param ?list<string> $only in the place of all that comes from above
     * @param list<string> $without taken away then
     * @param list<string> $add put behind then
     */
    private function __construct(private ?array $only, private array $without, private array $add)
    {
    }

    public static function fields(): Fields
    {
        $ids = Field::list(Field::id(), self::MOST);

        return Fields::of([
            'only' => $ids->saying('in the place of all that comes from above'),
            'without' => $ids->saying('taken away then'),
            'add' => $ids->saying('put behind then; what is there already stays where it is'),
        ])->named('ListChange');
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('only', 'without', 'add');
        $ids = static fn (?Node $list): ?array => $list === null ? null : array_map(static fn (Node $one): string => $one->id(), $list->items(self::MOST));

        return new self($ids($node->optional('only')), $ids($node->optional('without')) ?? [], $ids($node->optional('add')) ?? []);
    }

    /**
     * @param array<string, string> $from where each id comes from, in the order of the list
     * @return array<string, string> the same once a place has changed it
     */
    public function made(array $from, string $place): array
    {
        $made = $this->only === null ? $from : array_fill_keys($this->only, $place);

        return array_diff_key($made, array_flip($this->without)) + array_fill_keys($this->add, $place);
    }
}
