<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Playback\DisplayStatus;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** What is wrong with the displays of an estate. The elements of these findings are ids of displays; the same of many displays is said once. */
final class EstateFindings
{
    /** Of more displays than these the same is said once. */
    private const MANY = 5;

    /** @var array<string, array{findings: list<Finding>, displays: array<string, string>, most: int, together: string}> by what is alike */
    private array $alike = [];

    private function __construct(private readonly int $nowMs)
    {
    }

    /** @return list<Explanation> of what is found here */
    public static function explained(): array
    {
        return [
            new Explanation('player.silent', 'stop', 'a player that missed four of its own calls; it goes on with what it has', 'nobody knows what is seen there', 'common practice'),
            new Explanation('player.troubled', 'warning', 'a player that complains, in its own words', 'something is not seen as it is meant', 'the player'),
            new Explanation('player.changing', 'warning', 'a player that plays another release than the one handed over last', 'it is on its way, or does not get there', 'computation.md, 9'),
            new Explanation('display.unbound', 'warning', 'a display without a player', 'nothing plays there', 'common practice'),
            new Explanation('display.blank', 'hint', 'a display to which nothing was handed over, and on which no schedule rules', 'it stays dark', 'common practice'),
            new Explanation('release.older', 'warning', 'a release of something that was changed since, told once for each thing', 'what is saved is not what is seen', 'computation.md, 9'),
            new Explanation('schedule.nowhere', 'warning', 'a schedule that rules on no display and in no place', 'nothing that it books plays', 'arithmetic'),
            new Explanation(
                'filled.language',
                'warning',
                'what is filled in and stands on a display without a text in a language that the display shows: its own by its settings, else all of the template',
                'some viewers read another language than theirs',
                'arithmetic',
            ),
            new Explanation('survey.found', 'the gravest of what is found', 'a display in whose survey something is found', 'layouts are judged by it', 'checks of surveys'),
        ];
    }

    /**
     * @param iterable<DisplayFacts> $displays in the order of the estate
     * @param int $nowMs Unix ms
     */
    public static function of(iterable $displays, int $nowMs): Findings
    {
        $findings = new self($nowMs);
        foreach ($displays as $display) {
            $findings->look($display);
        }

        return new Findings($findings->all());
    }

    /** That nothing is there to be shown on a display. */
    public static function blank(string $id, string $name): Finding
    {
        return new Finding('display.blank', Level::Hint, [$id], sprintf('Nothing was handed over to %s yet, and no schedule rules there.', $name));
    }

    /** A schedule that rules on no display and in no place: its display was taken away, or another schedule rules where it did. */
    public static function nowhere(string $id, string $name): Finding
    {
        $says = sprintf('The schedule "%s" rules nowhere: nothing that it books plays. Book it elsewhere, or delete it.', $name);

        return new Finding('schedule.nowhere', Level::Warning, [], $says, ['schedule' => $id]);
    }

    /**
     * What is filled in and stands on displays that show a language in which it says nothing.
     *
     * @param string $filled its id
     * @param non-empty-list<string> $languages in which it says nothing
     * @param non-empty-array<string> $displays their names, by id
     */
    public static function untranslated(string $filled, string $name, array $languages, array $displays): Finding
    {
        $on = count($displays) > self::MANY ? sprintf('%d displays show', count($displays)) : implode(', ', $displays) . (count($displays) === 1 ? ' shows' : ' show');
        $says = sprintf('"%s" has no text in %s, which %s too.', $name, implode(', ', $languages), $on);

        return new Finding('filled.language', Level::Warning, array_map(strval(...), array_keys($displays)), $says, ['filled' => $filled, 'missing' => $languages]);
    }

    private function look(DisplayFacts $display): void
    {
        $release = $display->release;
        foreach ($display->players as [$player, $call, $standing]) {
            $who = static fn (): string => $display->name . (count($display->players) > 1 ? " ($player)" : '');
            match ($standing) {
                DisplayStatus::Silent => $this->add('player.silent', Level::Stop, $display, '%d displays have a silent player; each goes on with what it has.', fn (): string => sprintf(
                    '%s has been silent %s.%s',
                    $who(),
                    $this->since($call->calledMs, $display->timezone),
                    $release === null ? '' : sprintf(' It goes on with release %d.', $release['number']),
                )),
                DisplayStatus::Troubled => $this->add(
                    'player.troubled',
                    Level::Warning,
                    $display,
                    '%d displays have a player in trouble.',
                    static fn (): string => $who() . ': ' . rtrim($call->trouble ?? '', '.') . '.',
                ),
                DisplayStatus::Changing => $this->add(
                    'player.changing',
                    Level::Warning,
                    $display,
                    '%d displays are on their way to their release.',
                    static fn (): string => sprintf('%s is on its way to release %d.', $who(), $release['number'] ?? 0),
                ),
                default => null,
            };
        }
        $name = static fn (): string => $display->name;
        if ($display->players === []) {
            $this->add('display.unbound', Level::Warning, $display, '%d displays have no player.', static fn (): string => $name() . ' has no player.');
        }
        if ($release === null) {
            $this->add('display.blank', Level::Hint, $display, '%d displays were handed nothing yet.', static fn (): string => sprintf('Nothing was handed over to %s yet.', $name()));
        }
        if (($planned = $display->planned) !== null) {
            $this->add($planned->code, $planned->level, $display, Planned::TOGETHER[$planned->code], static fn (): string => $name() . ": $planned->message");
        }
        if ($release !== null && $display->isOlder) {
            // Said once for each thing that was changed.
            $together = sprintf('"%s" is changed and not handed over to %%d displays.', strtr($release['name'], ['%' => '%%']));
            $alone = static fn (): string => sprintf('"%s" is changed and not handed over to %s.', $release['name'], $name());
            $this->add('release.older', Level::Warning, $display, $together, $alone, $release['source'], 1);
        }
        ['stops' => $stops, 'warnings' => $warnings, 'hints' => $hints] = $display->survey;
        if ($stops + $warnings + $hints > 0) {
            $level = $stops > 0 ? Level::Stop : ($warnings > 0 ? Level::Warning : Level::Hint);
            $told = static fn (): string => sprintf('%s: %d found in its survey.', $name(), $stops + $warnings + $hints);
            $this->add('survey.found', $level, $display, '%d displays have something in their survey that is worth a look.', $told, $level->value);
        }
    }

    /**
     * @param string $together what is said of many displays together, with a %d for their number
     * @param \Closure(): string $alone what is said of this one
     * @param string $like what must be alike beside the code
     * @param int $most of more displays it is said together
     */
    private function add(string $code, Level $level, DisplayFacts $display, string $together, \Closure $alone, string $like = '', int $most = self::MANY): void
    {
        $key = "$code $like";
        $this->alike[$key] ??= ['findings' => [], 'displays' => [], 'most' => $most, 'together' => $together];
        $this->alike[$key]['displays'][$display->id] = $display->id;
        if (count($this->alike[$key]['displays']) <= $most) {
            $measure = $display->release === null ? [] : ['source' => $display->release['source']];
            $this->alike[$key]['findings'][] = new Finding($code, $level, [$display->id], $alone(), $measure);
        }
    }

    /** @return list<Finding> */
    private function all(): array
    {
        $all = [];
        foreach ($this->alike as ['findings' => $findings, 'displays' => $displays, 'most' => $most, 'together' => $together]) {
            $isMany = count($displays) > $most;
            array_push($all, ...($isMany ? [new Finding($findings[0]->code, $findings[0]->level, array_values($displays), sprintf($together, count($displays)), $findings[0]->measure)] : $findings));
        }

        return $all;
    }

    /** Since when, as the clock on the wall of the display shows it; with its date where that is not today's. */
    private function since(?int $ms, string $timezone): string
    {
        if ($ms === null) {
            return 'from the beginning';
        }
        $clock = WallClock::in($timezone);
        [$then, $now] = array_map(static fn (int $at): string => (string) LocalTime::ofSeconds($clock->local(intdiv($at, 1000))), [$ms, $this->nowMs]);

        return 'since ' . (substr($then, 0, 10) === substr($now, 0, 10) ? '' : substr($then, 0, 10) . ' ') . substr($then, 11, 5);
    }
}
