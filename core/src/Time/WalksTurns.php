<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** Turns that know what holds at an instant, and with that all others. */
trait WalksTurns
{
    public function between(int $fromMs, int $toMs): array
    {
        $turns = [];
        for ($at = $fromMs; $at < $toMs; $at = $turn->toMs) {
            $turn = $this->at($at);
            // A turn may have begun long before: in here the one before it ends first.
            $turns[] = $turn->within($at, $toMs);
        }

        return $turns;
    }

    public function nextChange(int $atMs): ?int
    {
        $next = $this->at($atMs)->toMs;

        return $next === PHP_INT_MAX ? null : $next;
    }
}
