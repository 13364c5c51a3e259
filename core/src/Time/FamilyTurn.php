<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** What a leader and its followers go through together while the same items are due: [from, to) in Unix ms. */
final readonly class FamilyTurn
{
    /**
     * @param int $anchorMs that their loops count from; Unix ms
     * @param non-empty-list<Loop> $loops of each zone, the leader's first; items are numbers among the enabled ones of its list
     */
    public function __construct(public int $fromMs, public int $toMs, public int $anchorMs, public array $loops)
    {
    }

    public function of(int $member): Turn
    {
        return new Turn($this->fromMs, $this->toMs, $this->anchorMs, $this->loops[$member]);
    }
}
