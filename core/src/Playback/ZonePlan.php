<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Rota;
use UpperPane\Core\Time\Schedule\Play;
use UpperPane\Core\Time\Schedule\Timetable;
use UpperPane\Core\Time\Transition;

/** A zone's loop together with what each of its items draws. */
final readonly class ZonePlan
{
    /** @var list<?Part> by enabled item: its only part, where its scene is no more than that, and looks the same at every instant */
    public array $parts;

    /**
     * @param list<list<Part|ZonePlan>> $scenes by enabled item
     * @param list<Transition> $transitions by enabled item: how it takes over from the one before
     * @param Box $box the zone as it can be seen, canvas px
     * @param ?Rota $rota where items come and go
     * @param int $member which of the rota's zones it is
     * @param Begins $begins from when it counts
     * @param ?Timetable $timetable what is booked, where anything can be
     * @param array<string, int> $booked scene of what is booked, by Played::key()
     * @param ?int $standby scene of what goes on playing when nothing more is known
     */
    public function __construct(
        public string $element,
        public Loop $loop,
        public array $scenes,
        public array $transitions,
        public Box $box,
        public ?Rota $rota = null,
        public int $member = 0,
        public Begins $begins = Begins::Anchor,
        public ?Timetable $timetable = null,
        public array $booked = [],
        public ?int $standby = null,
    ) {
        $this->parts = array_map(static fn (array $scene): ?Part => count($scene) === 1 && $scene[0] instanceof Part && $scene[0]->changing === null ? $scene[0] : null, $scenes);
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
        if ($this->timetable === null) {
            return $this->ownAt($atMs, $sinceMs);
        }
        $play = $this->timetable->at($atMs);
        $scene = $this->sceneOf($play);
        if ($scene !== null) {
            return [Loop::endless($scene), $atMs - $play->anchorMs, $atMs - $play->fromMs];
        }
        [$loop, $since, $turned] = $this->ownAt($atMs, $sinceMs);

        return [$loop, $since, min($turned, $atMs - $play->fromMs)];
    }

    /** The scene of what is booked, or null where its own list plays. */
    public function sceneOf(Play $play): ?int
    {
        return $play->plays === null ? null : $this->booked[$play->plays->key()] ?? null;
    }

    /** Whether what it goes through depends on more than a period. */
    public function isTurning(): bool
    {
        return $this->rota !== null || $this->timetable !== null;
    }

    /** @return array{Loop, int, int} */
    private function ownAt(int $atMs, int $sinceMs): array
    {
        if ($this->rota === null) {
            return [$this->loop, $sinceMs, PHP_INT_MAX];
        }
        if ($this->begins === Begins::Item) {
            return [$this->rota->begunAt($atMs - $sinceMs)[$this->member], $sinceMs, $sinceMs];
        }
        $turn = $this->rota->anchored($atMs - $sinceMs)->at($atMs);

        return [$turn->loops[$this->member], $atMs - $turn->anchorMs, $atMs - $turn->fromMs];
    }
}
