<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Time\Loop;

/** A zone's loop together with what each of its items draws. */
final readonly class ZonePlan
{
    /**
     * @param list<list<Part|ZonePlan>> $scenes by enabled item
     * @param list<int> $fades ms that each item fades in over the one before
     */
    public function __construct(public string $element, public Loop $loop, public array $scenes, public array $fades)
    {
    }
}
