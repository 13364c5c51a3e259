<?php

declare(strict_types=1);

namespace UpperPane\App\Time;

use Doctrine\ORM\EntityManagerInterface;
use UpperPane\App\Estate\Place;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\WallClock;

/** What is due at an instant on every display of the estate on which a schedule stands. Read as plain rows, since an estate has thousands. */
final readonly class DueNow
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * @param int $atMs Unix ms
     * @return array<array{plays: ?string, booking: ?string, why: string}> by display id
     */
    public function at(int $atMs): array
    {
        $connection = $this->entities->getConnection();
        $rows = $connection->fetchAllAssociative(
            "SELECT s.id, s.place_id, JSON_VALUE(s.document, '$.timezone') AS timezone
             FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id WHERE r.source_kind = 'schedule'",
        );
        if ($rows === []) {
            return [];
        }
        [$ofDisplay, $ofPlace] = [[], []];
        foreach ($this->entities->getRepository(Design::class)->findBy(['kind' => DesignKind::Schedule]) as $design) {
            if ($design->displayId !== null) {
                $ofDisplay[$design->displayId] = $design;
            } elseif ($design->placeId !== null) {
                $ofPlace[$design->placeId] = $design;
            }
        }
        $chains = $this->chains($ofPlace);
        [$clocks, $schedules, $due, $names, $told] = [[], [], [], [], []];
        foreach ($rows as ['id' => $id, 'place_id' => $place, 'timezone' => $timezone]) {
            assert(is_string($id) && is_string($place) && is_string($timezone));
            $ruling = [...(isset($ofDisplay[$id]) ? [$ofDisplay[$id]] : []), ...($chains[$place] ?? [])];
            if ($ruling === []) {
                continue;
            }
            // Displays that hang together are ruled by the same schedules: these are read once, and asked once in each time zone.
            $key = implode(' ', array_map(static fn (Design $design): string => $design->id, $ruling));
            $schedule = $schedules[$key] ??= Schedule::fromArray($ruling[0]->document)
                ->together(...array_map(static fn (Design $design): Schedule => Schedule::fromArray($design->document), array_slice($ruling, 1)));
            $play = $due["$key $timezone"] ??= Plays::at($schedule, $clocks[$timezone] ??= WallClock::in($timezone), $atMs);
            $name = $play->plays === null ? null : $names[$play->plays->key()] ??= $this->name($play->plays);
            $told[$id] = ['plays' => $name, 'booking' => $play->booking?->name, 'why' => $play->why()];
        }

        return $told;
    }

    private function name(Played $played): string
    {
        $name = $this->entities->getConnection()->fetchOne(sprintf('SELECT name FROM %s WHERE id = ?', $played->kind === 'media' ? 'media_asset' : 'design'), [$played->id]);

        return is_string($name) ? $name : $played->id;
    }

    /**
     * @param array<string, Design> $ofPlace
     * @return array<list<Design>> by place: the schedules that rule there, the nearest first
     */
    private function chains(array $ofPlace): array
    {
        $chains = [];
        foreach ($this->entities->getRepository(Place::class)->findAll() as $place) {
            $chains[$place->id] = [];
            for ($one = $place; $one !== null; $one = $one->parent) {
                if (isset($ofPlace[$one->id])) {
                    $chains[$place->id][] = $ofPlace[$one->id];
                }
            }
        }

        return $chains;
    }
}
