<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Time\FixedTurns;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Turn;
use UpperPane\Core\Time\Turns;

/** At which of its places something stands, as overlays come and go. */
final class PlacedTurns implements Turns
{
    use FixedTurns;

    /** So far ahead it is looked for another place, ms. */
    private const AHEAD_MS = 366 * 86_400_000;

    /** @var array<int, Turn> by the number of what is in force */
    private array $known = [];

    public function __construct(private readonly OverlayCourse $course, private readonly Places $places)
    {
    }

    /** Since when and until when is another matter. */
    public function at(int $atMs): Turn
    {
        $number = $this->course->numberAt($atMs);

        return $this->known[$number] ??= new Turn(PHP_INT_MIN, PHP_INT_MAX, 0, Loop::endless($this->places->number($this->course->list($number))));
    }

    public function between(int $fromMs, int $toMs): array
    {
        $turns = [];
        foreach ($this->course->between($fromMs, $toMs) as $turn) {
            $slots = [];
            foreach ($turn->loop->items as $n => $item) {
                $number = $this->places->number($this->course->list($item));
                $last = count($slots) - 1;
                if ($last >= 0 && $slots[$last][0] === $number) {
                    $slots[$last][1] += $turn->loop->lengths[$n];
                } else {
                    $slots[] = [$number, $turn->loop->lengths[$n]];
                }
            }
            $isOne = count($slots) === 1;
            $before = end($turns);
            if ($isOne && $before !== false && $before->loop->periodMs === null && $before->loop->items === [$slots[0][0]]) {
                array_pop($turns);
                $turns[] = new Turn($before->fromMs, $turn->toMs, 0, $before->loop);
            } else {
                $turns[] = new Turn($turn->fromMs, $turn->toMs, $isOne ? 0 : $turn->anchorMs, $isOne ? Loop::endless($slots[0][0]) : Loop::ofSlots($slots));
            }
        }

        return $turns;
    }

    public function nextChange(int $atMs): ?int
    {
        $number = $this->at($atMs)->loop->items[0];
        for ($at = $this->course->nextChange($atMs); $at < $atMs + self::AHEAD_MS; $at = $this->course->nextChange($at)) {
            if ($this->at($at)->loop->items[0] !== $number) {
                return $at;
            }
        }

        return null;
    }
}
