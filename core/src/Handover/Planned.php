<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;

/**
 * Until when a release says what comes and goes, and what goes on from then.
 *
 * Well before that the same revisions are planned anew, so that a player which has reached the server within the last 60 days never runs out.
 */
final readonly class Planned
{
    /** What is due is written out for so long, from the midnight (UTC) of the day before. */
    public const AHEAD_MS = 92 * 86_400_000;

    /** So long a player may be without contact, and still plays what was planned. */
    public const WITHOUT_CONTACT_MS = 60 * 86_400_000;

    /** A daily job may fail on so many days before anybody is harmed. */
    private const SPARE_MS = 2 * 86_400_000;

    /** Two weeks are time enough to hand over again, also over a holiday. Common practice, no source. */
    public const SOON_MS = 14 * 86_400_000;

    /** What is said of many displays together, by code. */
    public const TOGETHER = [
        'release.ends' => '%d displays are planned for no more than two weeks: hand them over again.',
        'release.unplanned' => '%d displays could not be planned for the days to come.',
    ];

    /** @return list<Explanation> of what is found here */
    public static function explained(): array
    {
        return [
            new Explanation(
                'release.ends',
                'warning; stop when it is over',
                'the plan of a release ends within 14 days; says what goes on from then',
                'the standby would play unnoticed',
                'common practice',
            ),
            new Explanation(
                'release.unplanned',
                'warning',
                'what was handed over could not be planned for the days to come; says why, and until when it is',
                'a plan is made anew a month after it was made; where that fails the display runs out of it',
                'arithmetic',
            ),
        ];
    }

    /**
     * @param int $untilMs Unix ms
     * @param ?string $then name of the standby
     * @param ?string $trouble why it could not be planned anew
     */
    public function __construct(public int $untilMs, public ?string $then, public ?string $trouble = null)
    {
    }

    /**
     * The span that is planned for at an instant: by the day, so that looking twice gives the same bytes.
     *
     * @param int $nowMs Unix ms
     * @return array{int, int} Unix ms
     */
    public static function span(int $nowMs): array
    {
        $from = 86_400_000 * (intdiv($nowMs, 86_400_000) - 1);

        return [$from, $from + self::AHEAD_MS];
    }

    /** Whether it is time to plan anew. */
    public function isToBeRenewed(int $nowMs): bool
    {
        return $this->untilMs - $nowMs < self::WITHOUT_CONTACT_MS + self::SPARE_MS;
    }

    /** `release.ends`: what is planned ends soon, or has ended; `release.unplanned`: it could not be planned anew. */
    public function finding(int $nowMs): ?Finding
    {
        if ($this->untilMs - $nowMs > self::SOON_MS) {
            return $this->trouble === null ? null : new Finding('release.unplanned', Level::Warning, [], sprintf(
                'Planned until %s; it could not be planned any further: %s',
                gmdate('j F Y', intdiv($this->untilMs, 1000)),
                $this->trouble,
            ));
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
        ) . ($this->trouble === null ? '' : " It could not be planned any further: $this->trouble"), ['until_days' => $over ? -$days : $days]);
    }
}
