<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Kind;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Trigger\Kind;
use UpperPane\Core\Trigger\Memory;
use UpperPane\Core\Trigger\Rank;
use UpperPane\Core\Trigger\Reading\Reading;

/** A person asks for it, by its name. */
final readonly class Operator implements Kind
{
    use Unwaiting;

    public static function fields(): Fields
    {
        return Fields::of([]);
    }

    public static function fromNode(Node $node): self
    {
        return new self();
    }

    public static function rank(): Rank
    {
        return Rank::Others;
    }

    public function hears(Reading $reading, Memory $memory, int $ms): null
    {
        return null;
    }

    public function compiled(\Closure $dueMs): array
    {
        return [];
    }

    public function comesWith(Kind $other): bool
    {
        return false;
    }

    public function lacks(Display $display): null
    {
        return null;
    }

    public function raisedBy(): array
    {
        return [];
    }
}
