<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Time\Loop;

/** A zone's loop together with what each of its items draws. */
final readonly class ZonePlan
{
    /** @var list<?Part> by enabled item: its only part, where its scene is no more than that */
    public array $parts;

    /**
     * @param list<list<Part|ZonePlan>> $scenes by enabled item
     * @param list<int> $fades ms that each item fades in over the one before
     */
    public function __construct(public string $element, public Loop $loop, public array $scenes, public array $fades)
    {
        $this->parts = array_map(static fn (array $scene): ?Part => count($scene) === 1 && $scene[0] instanceof Part ? $scene[0] : null, $scenes);
    }
}
