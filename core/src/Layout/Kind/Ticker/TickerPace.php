<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Ticker;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Check\Check;
use UpperPane\Core\Layout\Check\Subject;
use UpperPane\Core\Layout\Type\ReadingTime;

/**
 * `ticker.judder`: running text that does not move by whole or half px of the display at each refresh; `ticker.fast`: one whose words come by faster than they are read.
 *
 * Both are common practice, no source.
 */
final readonly class TickerPace implements Check
{
    /** Px a refresh: half steps are tolerable. */
    private const STEP = 0.5;
    private const TOLERANCE = 1e-6;

    public static function explained(): array
    {
        return [
            new Explanation('ticker.judder', 'warning', 'running text that does not move by whole or half px of the display at each refresh', 'it judders', 'common practice'),
            new Explanation('ticker.fast', 'warning', 'words that run by at more than 180 a minute', 'they are gone before they are read', 'common practice'),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach ($subject->layout->elements as $element) {
            if ($element instanceof Ticker) {
                yield from $this->judder($subject, $element);
                yield from $this->pace($subject, $element);
            }
        }
    }

    /** @return iterable<Finding> */
    private function judder(Subject $subject, Ticker $ticker): iterable
    {
        $refresh = $subject->display->refreshHz ?? Ticker::REFRESH_HZ;
        $step = $ticker->speedPxS * $subject->displayScale() / $refresh;
        if (abs($step / self::STEP - round($step / self::STEP)) <= self::TOLERANCE) {
            return;
        }
        $whole = max(1.0, round($step)) * $refresh / $subject->displayScale();
        yield new Finding(
            'ticker.judder',
            Level::Warning,
            [$ticker->id()],
            sprintf(
                '"%s" runs %s px at each refresh of %s Hz: it judders. Multiples of %s px a second run smoothly.',
                $ticker->id(),
                round($step, 2),
                Box::figure($refresh),
                Box::figure($refresh / $subject->displayScale()),
            ),
            ['speed_px_s' => $ticker->speedPxS, 'px_a_refresh' => round($step, 4), 'refresh_hz' => $refresh],
            $ticker->rect(),
            self::cures($ticker, $whole, $whole - $refresh / $subject->displayScale()),
        );
    }

    /** @return iterable<Finding> */
    private function pace(Subject $subject, Ticker $ticker): iterable
    {
        $length = $subject->faces === null ? null : $ticker->lengthPx($subject->faces);
        $words = $length === null ? null : $ticker->wordsAMinute($length);
        if ($length === null || $words === null || $words <= ReadingTime::WORDS_A_MINUTE) {
            return;
        }
        $refresh = ($subject->display->refreshHz ?? Ticker::REFRESH_HZ) / $subject->displayScale();
        $slower = floor($ticker->speedPxS * ReadingTime::WORDS_A_MINUTE / $words / $refresh) * $refresh;
        yield new Finding(
            'ticker.fast',
            Level::Warning,
            [$ticker->id()],
            sprintf(
                '"%s" brings %d words a minute by; %d are read without haste. One pass lasts %s s.',
                $ticker->id(),
                (int) round($words),
                ReadingTime::WORDS_A_MINUTE,
                round($ticker->passMs($length) / 1000, 1),
            ),
            ['words_a_minute' => round($words, 1), 'pass_ms' => $ticker->passMs($length)],
            $ticker->rect(),
            self::cures($ticker, $slower),
        );
    }

    /** @return list<Fix> these speeds, px a second, as far as it then runs at all */
    private static function cures(Ticker $ticker, float ...$speeds): array
    {
        return array_map(
            static fn (float $speed): Fix => Fix::element(sprintf('Let it run %s px a second', Box::figure($speed)), $ticker->id(), ['speed_px_s' => round($speed, 4)]),
            array_values(array_filter($speeds, static fn (float $speed): bool => $speed > 0.0)),
        );
    }
}
