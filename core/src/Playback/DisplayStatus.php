<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Finding\Level;

/** How a display stands: whether what should be on it is on it, as far as its players say. Worst first. */
enum DisplayStatus: string
{
    case Unbound = 'unbound';
    case Silent = 'silent';
    case Troubled = 'troubled';
    case Blank = 'blank';
    case Changing = 'changing';
    case Plays = 'plays';

    /**
     * How one player stands.
     *
     * @param list<string> $due SHA-256 of the release that was handed over to its display last, as a manifest and in one piece; empty where none was
     * @param int $now Unix ms
     */
    public static function of(Call $call, array $due, int $now): self
    {
        $heard = $call->calledMs ?? $call->boundMs;

        return match (true) {
            // What is heard from the future is not known to be alive: a clock was set back.
            abs($now - $heard) > Rhythm::silentAfterMs($call->everyS) => self::Silent,
            $call->trouble !== null => self::Troubled,
            $due === [] => self::Blank,
            !in_array($call->plays, $due, true) => self::Changing,
            default => self::Plays,
        };
    }

    /**
     * How a display with these players stands: as the best of them, since one that plays is enough for whoever looks at it.
     *
     * @param list<self> $players
     */
    public static function together(array $players): self
    {
        $best = self::Unbound;
        foreach ($players as $player) {
            if ($player->rank() > $best->rank()) {
                $best = $player;
            }
        }

        return $best;
    }

    /** How much it matters; null where all is well. */
    public function level(): ?Level
    {
        return match ($this) {
            self::Silent => Level::Stop,
            self::Unbound, self::Troubled, self::Changing => Level::Warning,
            self::Blank => Level::Hint,
            self::Plays => null,
        };
    }

    /** Said of one player, or of a display without one. */
    public function sentence(?int $release = null, ?string $trouble = null): string
    {
        return match ($this) {
            self::Unbound => 'no player is bound',
            self::Silent => 'silent; it goes on with what it has',
            self::Troubled => $trouble ?? 'in trouble',
            self::Blank => 'nothing was handed over yet',
            self::Changing => "on its way to release $release",
            self::Plays => 'plays what it should',
        };
    }

    private function rank(): int
    {
        return match ($this) {
            self::Unbound => 0,
            self::Silent => 1,
            self::Troubled => 2,
            self::Blank => 3,
            self::Changing => 4,
            self::Plays => 5,
        };
    }
}
