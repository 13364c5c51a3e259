<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;

/** A condition: only while so many rows of data are chosen, before their limit. */
final readonly class When
{
    private const MOST = 200_000;

    private function __construct(public Rows $rows, public int $atLeast, public ?int $atMost)
    {
    }

    public static function field(): Field
    {
        return Field::object(Fields::of([
            'rows' => Field::object(Rows::fields())->required(),
            'at_least' => Field::int(0, self::MOST)->saying('1, or 0 where only at_most stands'),
            'at_most' => Field::int(0, self::MOST),
        ])->named('When'))->saying('only while so many rows are chosen');
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        $node->object('rows', 'at_least', 'at_most');
        $most = $node->optional('at_most')?->int(0, self::MOST);
        $least = $node->optional('at_least')?->int(0, self::MOST) ?? ($most === null ? 1 : 0);
        if ($most !== null && $most < $least) {
            throw $node->field('at_most')->refused(Reason::ValueRange, sprintf('is %d, less than at_least, which is %d; it would never hold.', $most, $least));
        }

        return new self(Rows::fromNode($node->field('rows')), $least, $most);
    }

    public function holds(int $count): bool
    {
        return $count >= $this->atLeast && ($this->atMost === null || $count <= $this->atMost);
    }
}
