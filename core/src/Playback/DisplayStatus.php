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

    /** A player that calls every ten seconds and is not heard for so long has missed four calls. Common practice, no source. */
    public const SILENT_AFTER_MS = 45_000;

    /**
     * How one player stands.
     *
     * @param ?string $due SHA-256 of the release that was handed over to its display last
     * @param int $now Unix ms
     */
    public static function of(Call $call, ?string $due, int $now): self
    {
        return match (true) {
            $now - ($call->calledMs ?? $call->boundMs) > self::SILENT_AFTER_MS => self::Silent,
            $call->trouble !== null => self::Troubled,
            $due === null => self::Blank,
            $call->plays !== $due => self::Changing,
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
        return (int) array_search($this, self::cases(), true);
    }
}
