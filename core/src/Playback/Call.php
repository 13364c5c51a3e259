<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

/** What is known of one player: since when it is bound, when it called last, and what it then said. */
final readonly class Call
{
    /**
     * @param int $boundMs Unix ms
     * @param ?int $calledMs Unix ms of its last call; null where it never called
     * @param ?string $plays SHA-256 of the release that it plays
     * @param ?string $trouble what it complains of, in its own words
     * @param ?int $everyS how often it says that it calls, s; null where it tells none
     */
    public function __construct(
        public int $boundMs,
        public ?int $calledMs = null,
        public ?string $plays = null,
        public ?string $trouble = null,
        public ?int $everyS = null,
    ) {
    }

    /**
     * What holds of a player with several outputs: that of the worst of them.
     *
     * @param non-empty-array<int, self> $calls what its outputs said last, by number
     * @param list<int> $outputs those that it feeds, by the survey; one that never called makes the player as good as silent
     */
    public static function together(array $calls, array $outputs): self
    {
        $first = $calls[array_key_first($calls)];
        [$plays, $called, $troubles] = [[], [], []];
        foreach ($calls as $number => $call) {
            $plays[] = $call->plays ?? '';
            $called[] = $call->calledMs;
            if ($call->trouble !== null) {
                $troubles[] = (count($outputs) > 1 ? "Output $number: " : '') . $call->trouble;
            }
        }
        $unheard = array_diff($outputs, array_keys($calls)) !== [] || in_array(null, $called, true);

        $every = max(array_map(static fn (self $call): ?int => $call->everyS, $calls));

        return new self($first->boundMs, $unheard ? null : min($called), count(array_unique($plays)) === 1 ? $first->plays : null, $troubles[0] ?? null, $every);
    }
}
