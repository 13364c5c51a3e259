<?php

declare(strict_types=1);

namespace UpperPane\App\Time;

use Doctrine\DBAL\Connection;
use UpperPane\App\Display\Places;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\Feeding;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\WallClock;

/** What is due at an instant on displays on which a schedule stands. */
final readonly class DueNow
{
    public function __construct(private Connection $connection, private Places $allPlaces, private Schedules $schedules, private Feeding $feeding)
    {
    }

    /**
     * @param list<array{id: string, place: string, timezone: string}> $displays on which one stands
     * @param int $atMs Unix ms
     * @return array<array{plays: ?string, booking: ?string, why: string}> by display id
     */
    public function at(array $displays, int $atMs): array
    {
        if ($displays === []) {
            return [];
        }
        $rules = $this->schedules->all();
        $places = $this->places();
        [$clocks, $schedules, $due, $names, $told] = [[], [], [], [], []];
        $feeds = $this->feeding->now($atMs);
        foreach ($displays as ['id' => $id, 'place' => $place, 'timezone' => $timezone]) {
            $ruling = $rules->on($id, ...$places[$place] ?? []);
            if ($ruling === []) {
                continue;
            }
            // Displays that hang together are ruled by the same schedules: these are read once, and asked once in each time zone.
            $key = implode(' ', array_map(static fn (Design $design): string => $design->id, $ruling));
            try {
                $schedule = $schedules[$key] ??= Schedules::together($ruling);
                $play = $due["$key $timezone"] ??= Plays::at(self::fed($schedule, $timezone, $feeds), $clocks[$timezone] ??= WallClock::in($timezone), $atMs);
                $name = $play->plays === null ? null : $names[$play->plays->key()] ??= $this->name($play->plays);
                $told[$id] = ['plays' => $name, 'booking' => $play->booking?->name, 'why' => $play->why()];
            } catch (Refused $e) {
                // One schedule that asks too much is told as such, and the others as ever.
                $told[$id] = ['plays' => null, 'booking' => null, 'why' => sprintf('what "%s" plays cannot be told: %s', $ruling[0]->name, $e->getMessage())];
            }
        }

        return $told;
    }

    private static function fed(Schedule $schedule, string $timezone, Feeds $feeds): Schedule
    {
        return $schedule->looksAtData() ? Composer::over(null, (new Surroundings($timezone))->fed($feeds))->schedule($schedule) : $schedule;
    }

    private function name(Played $played): string
    {
        $name = $this->connection->fetchOne(sprintf('SELECT name FROM %s WHERE id = ?', $played->kind === 'media' ? 'media_asset' : 'design'), [$played->id]);

        return is_string($name) ? $name : $played->id;
    }

    /** @return array<list<string>> by place: its id, that of the place it is in, and so on outwards */
    private function places(): array
    {
        $places = [];
        foreach ($this->allPlaces->all() as $place) {
            $places[$place->id] = $place->outwards();
        }

        return $places;
    }
}
