<?php

declare(strict_types=1);

namespace UpperPane\App\Panel;

use Psr\Clock\ClockInterface;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Handover\BeginHandover;
use UpperPane\App\Handover\Contents;
use UpperPane\App\Handover\HandedRelease;
use UpperPane\App\Handover\HandedReleaseRepository;
use UpperPane\App\Handover\Handing;
use UpperPane\App\Handover\Offers;
use UpperPane\App\Handover\OwnSchedules;
use UpperPane\App\Handover\Playable;
use UpperPane\App\Handover\Programmes;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Storage\Transaction;
use UpperPane\App\Time\Schedules;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Panel\PanelBookings;
use UpperPane\Core\Panel\PanelKey;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/**
 * What keys of panels put on a display, or on a zone of it: bookings of rank takeover in the display's own schedule, handed over at once with all else as it was.
 */
final readonly class PutOnDisplay
{
    public function __construct(
        private Transaction $transaction,
        private Schedules $schedules,
        private OwnSchedules $own,
        private HandedReleaseRepository $releases,
        private Programmes $programmes,
        private Offers $offers,
        private BeginHandover $begin,
        private Designs $anyDesigns,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @throws Problem where nothing plays there, or its zone is none of what plays
     * @throws Refused
     */
    public function put(PanelKey $key, SurveyedDisplay $display): Handing
    {
        $plays = $key->plays ?? throw new \LogicException('A key that asks for a signal puts nothing anywhere.');

        return $this->transaction->of(fn (): Handing => $this->changed(
            $display,
            fn (PanelBookings $bookings): PanelBookings => $bookings->with(
                $key->name,
                $plays,
                $key->zone,
                WallClock::in($display->timezone()),
                $key->forMin,
                (int) $this->clock->now()->format('Uv'),
            ),
            $key->zone,
            sprintf('%s on %s', $key->name, $display->about()->name),
        ));
    }

    /**
     * Back to the programme.
     *
     * @param ?string $zone null for what was put on the whole display
     * @throws Problem where nothing was put there
     * @throws Refused
     */
    public function back(SurveyedDisplay $display, ?string $zone): Handing
    {
        return $this->transaction->of(fn (): Handing => $this->changed(
            $display,
            static fn (PanelBookings $bookings): PanelBookings => $bookings->without($zone)
                ?? throw new Problem(409, 'panel.nothing', sprintf('Nothing was put on %s by a panel.', $zone === null ? 'the whole of it' : "\"$zone\"")),
            null,
            sprintf('%s back to the programme', $display->about()->name),
        ));
    }

    /**
     * What was put there and stands by now, as it was handed over; and the name of what it was put on, where that is no schedule.
     *
     * @return array{list<array{zone: ?string, name: string, plays: array<string, string>, since: string, until: ?string}>, ?string}
     */
    public function stands(SurveyedDisplay $display): array
    {
        $own = OwnSchedules::of($display, $this->schedules->ruling($display));
        $revision = $own === null ? null : $this->releases->contentsOn($display)->parts[$own->id] ?? null;
        $handed = $own === null || $revision === null ? null : $this->anyDesigns->numbered($own->id, $revision);
        $bookings = PanelBookings::in($handed->document ?? []);

        return [$bookings->stand($this->local($display), WallClock::in($display->timezone())), $bookings->before()[1] ?? null];
    }

    /** @param \Closure(PanelBookings): PanelBookings $change */
    private function changed(SurveyedDisplay $display, \Closure $change, ?string $zone, string $what): Handing
    {
        $current = $this->releases->on($display)
            ?? throw new Problem(409, 'panel.dark', sprintf('Nothing was handed over to "%s" yet: nothing plays there above which it could stand.', $display->about()->name));
        $own = OwnSchedules::of($display, $this->schedules->ruling($display));
        $before = PanelBookings::in($own->document ?? []);
        // What was handed over is no schedule: it is booked below what is put there, so that it plays on around it.
        $under = $current->sourceKind === 'schedule' ? null : self::played($current);
        $after = $change($before->under($under, $this->local($display)))->tidied($this->local($display));
        $own = $own === null
            ? $this->own->made($display, $after->bookings, $current)
            : $this->own->saved($own, ['bookings' => $after->bookings] + $own->document, $what);
        $back = $after->isEmpty() ? $before->before() : null;
        $contents = $this->contents($display, $current, $own, $back);
        if ($zone !== null && $this->programmes->of($contents, $display->display())->base->zoneRect($zone) === null) {
            throw new Problem(409, 'panel.zone', sprintf('What plays on "%s" has no zone "%s".', $display->about()->name, $zone));
        }

        return $this->begin->of($what, $this->offers->of(static fn (): Contents => $contents, [$display->id]));
    }

    /** @param ?array{Played, string} $back what was handed over before anything was put there, and its name; null where that is what schedules say */
    private function contents(SurveyedDisplay $display, HandedRelease $current, Design $own, ?array $back): Contents
    {
        $source = match (true) {
            $back !== null => Playable::kept($this->anyDesigns->played($back[0]->kind, $back[0]->id)->kind->value ?? $back[0]->kind, $back[0]->id, null, $back[1]),
            $current->sourceKind === 'schedule' => Playable::kept('schedule', $current->sourceId, null, $current->name),
            default => Playable::kept('schedule', $own->id, null, $own->name),
        };

        return $this->own->contents([$display], [$display->id => $current], [$display->id => [$source, [$own->id]]])[$display->id];
    }

    /** @return array{Played, string} what was handed over, and its name */
    private static function played(HandedRelease $current): array
    {
        return [Played::of(match ($current->sourceKind) {
            'playlist' => 'playlist',
            'media' => 'media',
            default => 'layout',
        }, $current->sourceId), $current->name];
    }

    private function local(SurveyedDisplay $display): LocalTime
    {
        return LocalTime::ofSeconds(WallClock::in($display->timezone())->local($this->clock->now()->getTimestamp()));
    }
}
