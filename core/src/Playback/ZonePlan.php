<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Rota;
use UpperPane\Core\Time\Transition;

/** A zone's loop together with what each of its items draws. */
final readonly class ZonePlan
{
    /** @var list<?Part> by enabled item: its only part, where its scene is no more than that */
    public array $parts;

    /**
     * @param list<list<Part|ZonePlan>> $scenes by enabled item
     * @param list<Transition> $transitions by enabled item: how it takes over from the one before
     * @param Box $box the zone as it can be seen, canvas px
     * @param ?Rota $rota where items come and go
     * @param int $member which of the rota's zones it is
     * @param bool $nested whether it begins with an item of another zone, rather than at an instant of its own
     */
    public function __construct(
        public string $element,
        public Loop $loop,
        public array $scenes,
        public array $transitions,
        public Box $box,
        public ?Rota $rota = null,
        public int $member = 0,
        public bool $nested = false,
    ) {
        $this->parts = array_map(static fn (array $scene): ?Part => count($scene) === 1 && $scene[0] instanceof Part ? $scene[0] : null, $scenes);
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
        if ($this->rota === null) {
            return [$this->loop, $sinceMs, PHP_INT_MAX];
        }
        if ($this->nested) {
            return [$this->rota->begunAt($atMs - $sinceMs)[$this->member], $sinceMs, $sinceMs];
        }
        $turn = $this->rota->at($atMs);

        return [$turn->loops[$this->member], $atMs - $turn->anchorMs, $atMs - $turn->fromMs];
    }
}
