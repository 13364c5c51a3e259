<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Piece;
use UpperPane\Core\Overlay\Spell;
use UpperPane\Core\Time\FixedTurns;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Turn;
use UpperPane\Core\Time\Turns;
use UpperPane\Core\Units\WallClock;

/** What an overlay shows, anew with each of its occurrences. */
final class OccurrenceTurns implements Turns
{
    use FixedTurns;

    /** @var \WeakMap<Piece, Turn> */
    private \WeakMap $known;

    private readonly Loop $shown;

    private readonly Loop $nothing;

    public function __construct(private readonly OverlayCourse $course, private readonly Overlay $overlay, private readonly WallClock $clock)
    {
        $this->known = new \WeakMap();
        [$this->shown, $this->nothing] = [Loop::endless(0), Loop::of([])];
    }

    /** Of its span no more is known than that it lies in it. */
    public function at(int $atMs): Turn
    {
        $piece = $this->course->at($atMs);

        return $this->known[$piece] ??= $this->in($piece);
    }

    private function in(Piece $piece): Turn
    {
        $mine = array_values(array_filter($piece->standing, fn (InForce $one): bool => $one->overlay === $this->overlay))[0] ?? null;

        return new Turn($piece->fromMs, $piece->toMs, $mine->anchorMs ?? 0, $mine === null ? $this->nothing : $this->shown);
    }

    public function between(int $fromMs, int $toMs): array
    {
        if ($this->overlay->when->after !== null) {
            return $this->course->occurrences($this->overlay, $fromMs, $toMs);
        }
        [$turns, $at] = [[], $fromMs];
        foreach ([...$this->overlay->when->spells($this->clock, $fromMs, $toMs), new Spell($toMs, $toMs, 0)] as $spell) {
            if ($spell->fromMs > $at) {
                $turns[] = new Turn($at, $spell->fromMs, 0, $this->nothing);
            }
            if ($spell->toMs > $spell->fromMs) {
                $turns[] = new Turn($spell->fromMs, $spell->toMs, $spell->anchorMs, $this->shown);
            }
            $at = $spell->toMs;
        }

        return $turns;
    }

    /** Where it is shown at all, whoever places it knows that. */
    public function nextChange(int $atMs): ?int
    {
        return null;
    }
}
