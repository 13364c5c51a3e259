<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;

/** Until when a release says what plays by a schedule, and what goes on from then. */
final readonly class Planned
{
    /** Two weeks are time enough to hand over again, also over a holiday. Common practice, no source. */
    public const SOON_MS = 14 * 86_400_000;

    /** @return list<Explanation> of what is found here */
    public static function explained(): array
    {
        return [
            new Explanation(
                'release.ends',
                'warning; stop when it is over',
                'the plan of a release by a schedule ends within 14 days; says what goes on from then',
                'the standby would play unnoticed',
                'common practice',
            ),
        ];
    }

    /**
     * @param int $untilMs Unix ms
     * @param ?string $then name of the standby
     */
    public function __construct(public int $untilMs, public ?string $then)
    {
    }

    /** `release.ends`: what is planned ends soon, or has ended. */
    public function finding(int $nowMs): ?Finding
    {
        if ($this->untilMs - $nowMs > self::SOON_MS) {
            return null;
        }
        $over = $this->untilMs <= $nowMs;
        $days = intdiv(abs($this->untilMs - $nowMs), 86_400_000);

        return new Finding('release.ends', $over ? Level::Stop : Level::Warning, [], sprintf(
            $over ? 'What was planned ended %s; since then %s. Hand over again.' : 'What is planned ends %s; from then on %s. Hand over again.',
            match (true) {
                $days === 0 => $over ? 'today' : 'within a day',
                $days === 1 => $over ? 'a day ago' : 'in a day',
                default => sprintf($over ? '%d days ago' : 'in %d days', $days),
            },
            $this->then === null ? 'what played last goes on' : sprintf('the standby "%s" plays', $this->then),
        ), ['until_days' => $over ? -$days : $days]);
    }
}
