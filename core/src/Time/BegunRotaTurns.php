<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** One zone of a rota that begins with the item of another zone. A turn here is the time in which whatever begins begins alike. */
final readonly class BegunRotaTurns implements Turns
{
    use WalksTurns;

    /** Further ahead nobody looks for the next change of what is due. */
    private const AHEAD_MS = 400 * 86_400_000;

    /** @param int $member which of the rota's zones it is */
    public function __construct(private Rota $rota, private int $member)
    {
    }

    public function at(int $atMs): Turn
    {
        $next = $this->rota->changes($atMs + 1, $atMs + self::AHEAD_MS)[0] ?? PHP_INT_MAX;

        return new Turn($atMs, $next, $atMs, $this->rota->begunAt($atMs)[$this->member]);
    }

    public function between(int $fromMs, int $toMs): array
    {
        $turns = [];
        $begins = [$fromMs, ...$this->rota->changes($fromMs, $toMs)];
        foreach ($begins as $place => $from) {
            $turns[] = new Turn($from, $begins[$place + 1] ?? $toMs, $from, $this->rota->begunAt($from)[$this->member]);
        }

        return $turns;
    }

    public function anchored(int $anchorMs): SteadyTurns
    {
        return new SteadyTurns($this->rota->begunAt($anchorMs)[$this->member], $anchorMs);
    }

    public function resumed(int $fromMs, int $anchorMs): SteadyTurns
    {
        return $this->anchored($anchorMs);
    }

    public function begun(): self
    {
        return $this;
    }
}
