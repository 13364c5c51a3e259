<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\SteadyTurns;
use UpperPane\Core\Time\Turns;

/** What takes turns in a zone, together with what each scene draws. */
final readonly class ZonePlan
{
    /** The loop, where it is one for ever. */
    public ?Loop $steady;

    /**
     * @param Loop $loop of its list as a whole, whatever is due
     * @param Box $box the zone as it can be seen, canvas px
     * @param bool $begins whether it begins with the item of another zone: then what is due at its beginning stays until it ends
     * @param list<int> $anchored scenes that count from when their turn begins: what is booked, and the standby
     * @param ?int $behind scene of what goes on playing behind all that is planned
     * @param bool $walks whether what changes after it began ends its slot first, and then follows, also where it begins with the item of another zone
     * @param bool $through whether its scenes are one thing at several places: what is in them counts as if it stood beside the zone, whichever is due
     * @param bool $anew whether what its scenes draw is no item, and is told as if it stood alone
     * @param bool $alone whether nothing below it is drawn while it draws anything
     */
    public function __construct(
        public string $element,
        public Loop $loop,
        public Scenes $scenes,
        public Box $box,
        public Turns $turns,
        public bool $begins = false,
        public array $anchored = [],
        public ?int $behind = null,
        public bool $walks = false,
        public bool $through = false,
        public bool $anew = false,
        public bool $alone = false,
    ) {
        $this->steady = $turns instanceof SteadyTurns ? $turns->loop : null;
    }

    /** The same with other scenes in the place of its own. */
    public function showing(Scenes $scenes): self
    {
        return new self($this->element, $this->loop, $scenes, $this->box, $this->turns, $this->begins, $this->anchored, $this->behind, $this->walks, $this->through, $this->anew, $this->alone);
    }

    /**
     * What it goes through at an instant.
     *
     * @param int $atMs Unix ms
     * @param int $sinceMs ms since the anchor of its layers
     * @return array{Loop, int, int} the loop, ms since that began, and ms since when it has been this one
     */
    public function loopAt(int $atMs, int $sinceMs): array
    {
        if ($this->steady !== null) {
            return [$this->steady, $sinceMs, PHP_INT_MAX];
        }
        $turn = $this->turns->anchored($atMs - $sinceMs)->at($atMs);

        return [$turn->loop, $atMs - $turn->anchorMs, match (true) {
            $turn->fromMs !== PHP_INT_MIN => $atMs - $turn->fromMs,
            $this->begins => $sinceMs,
            default => PHP_INT_MAX,
        }];
    }
}
