<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Rows;

use UpperPane\Core\Units\WallClock;

/** The clocks on which times of data are meant, each made once. */
final class Clocks
{
    /** @var array<string, WallClock> */
    private array $byZone;

    /**
     * @param WallClock $own of the display, or of who asks
     * @param ?string $sourceZone on whose clock times of the source are meant that say no other
     */
    public function __construct(public readonly WallClock $own, private readonly ?string $sourceZone)
    {
        $this->byZone = [$own->timezone => $own];
    }

    /** @param ?string $zone of a field; null where it says none */
    public function of(?string $zone): WallClock
    {
        $zone ??= $this->sourceZone ?? $this->own->timezone;

        return $this->byZone[$zone] ??= WallClock::in($zone);
    }
}
