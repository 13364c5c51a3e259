<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Time\Schedule\Booking;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Schedule\Timetable;
use UpperPane\Core\Units\WallClock;

/** What a display plays by its schedule: all that is booked on it, each as it stands on its raster. */
final readonly class Programme
{
    /**
     * @param array<string, Layout> $whole what plays on the whole display, by Played::key()
     * @param array<string, array<string, Layout>> $zones what plays in zones of the standing layout, by zone id and Played::key()
     */
    private function __construct(public Schedule $schedule, public Size $raster, public WallClock $clock, public array $whole, public array $zones)
    {
    }

    /**
     * @param string $timezone of the display
     * @param \Closure(Played, Size): Layout $layoutOf a layout, or a playlist or media as a layout of that size
     */
    public static function of(Schedule $schedule, Size $raster, string $timezone, \Closure $layoutOf): self
    {
        $whole = [];
        foreach (self::played($schedule, null) as $played) {
            $whole[$played->key()] ??= $layoutOf($played, $raster);
        }
        $zones = [];
        foreach ($whole as $layout) {
            foreach ($layout->zones as $id => $zone) {
                foreach (self::played($schedule, (string) $id) as $played) {
                    $zones[$id][$played->key()] ??= $layoutOf($played, $zone->rect()->size());
                }
            }
        }

        return new self($schedule, $raster, WallClock::in($timezone), $whole, $zones);
    }

    public function timetable(?string $zone = null): Timetable
    {
        return new Timetable($this->schedule, $this->clock, $zone);
    }

    /** @return list<Layout> all that can be shown */
    public function layouts(): array
    {
        return [...array_values($this->whole), ...array_merge(...array_map(array_values(...), array_values($this->zones)))];
    }

    /** @return list<Finding> zones that are booked, and that no layout booked on the display has */
    public function findings(): array
    {
        $known = array_merge(...array_map(static fn (Layout $layout): array => array_map(strval(...), array_keys($layout->zones)), array_values($this->whole)));
        $booked = array_filter(array_map(static fn (Booking $booking): ?string => $booking->zone, $this->schedule->bookings));

        return array_map(static fn (string $zone): Finding => new Finding(
            'booking.zone',
            Level::Warning,
            [],
            sprintf('Zone "%s" is booked, but no layout that plays on the display has a zone of that name.', $zone),
            ['zone' => $zone],
        ), array_values(array_unique(array_diff($booked, $known))));
    }

    /** @return list<Played> */
    private static function played(Schedule $schedule, ?string $zone): array
    {
        $standby = $schedule->standbyOf($zone);

        return [...array_map(static fn (Booking $booking): Played => $booking->plays, $schedule->ranked($zone)), ...($standby === null ? [] : [$standby])];
    }
}
