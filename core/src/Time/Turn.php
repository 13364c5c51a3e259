<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** What some zones go through together while the same items are due: [from, to) in Unix ms. */
final readonly class Turn
{
    /**
     * @param int $anchorMs that their loops count from; Unix ms
     * @param array<int, Loop> $loops of each zone; items are indices into the enabled ones of its list
     */
    public function __construct(public int $fromMs, public int $toMs, public int $anchorMs, public array $loops)
    {
    }
}
