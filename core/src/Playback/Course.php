<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Zone;
use UpperPane\Core\Time\Schedule\Play;
use UpperPane\Core\Time\Turn;

/** All changes of a span, in words: what the display shows from when to when, and what each of its zones does. */
final readonly class Course
{
    /** So many are still read, or loaded into a table. */
    public const MOST = 100_000;

    /** @param list<Stretch> $stretches by their beginnings, the whole display before its zones */
    private function __construct(public array $stretches)
    {
    }

    /**
     * Of a layout that plays without end.
     *
     * @param int $fromMs Unix ms
     * @param string $timezone of the display, in which items come and go
     * @throws DocumentRefused where there are too many changes
     */
    public static function ofLayout(Layout $layout, string $timezone, int $fromMs, int $toMs, int $anchorMs = 0, bool $items = true): self
    {
        $stretches = [new Stretch($fromMs, $toMs, null, 'layout', $layout->id, $layout->name, null, 'it plays without end')];
        self::zones($layout, $timezone, null, $fromMs, $toMs, $anchorMs, $items, null, $stretches);

        return self::sorted($stretches);
    }

    /**
     * Of a display by its schedule.
     *
     * @param int $fromMs Unix ms
     * @param bool $items whether the items of zones are told as well, or bookings alone
     * @throws DocumentRefused where there are too many changes
     */
    public static function ofProgramme(Programme $programme, int $fromMs, int $toMs, bool $items = true): self
    {
        $stretches = [];
        foreach ($programme->timetable()->between($fromMs, $toMs) as $play) {
            $layout = $play->plays === null ? null : $programme->whole[$play->plays->key()];
            $stretches[] = self::played($play, null, $layout?->name);
            if ($layout !== null) {
                self::zones($layout, $programme->clock->timezone, null, $play->fromMs, $play->toMs, $play->anchorMs, $items, $programme, $stretches);
            }
        }

        return self::sorted($stretches);
    }

    /**
     * @param ?string $within the zone that the layout is booked in
     * @param ?Programme $programme where zones of this layout can be booked
     * @param list<Stretch> $stretches
     */
    private static function zones(Layout $layout, string $timezone, ?string $within, int $fromMs, int $toMs, int $anchorMs, bool $items, ?Programme $programme, array &$stretches): void
    {
        $rotas = $items ? $layout->rotas($timezone, $anchorMs) : [];
        foreach ($layout->visible()->zones as $id => $zone) {
            $path = $within === null ? (string) $id : "$within/$id";
            $booked = $programme->zones[$id] ?? [];
            $own = $booked === [] ? [[$fromMs, $toMs]] : [];
            foreach ($booked === [] ? [] : $programme?->timetable((string) $id)->between($fromMs, $toMs) ?? [] as $play) {
                $other = $play->plays === null ? null : $booked[$play->plays->key()] ?? null;
                if ($other === null) {
                    $own[] = [$play->fromMs, $play->toMs];
                    continue;
                }
                $stretches[] = self::played($play, $path, $other->name);
                self::zones($other, $timezone, $path, $play->fromMs, $play->toMs, $play->anchorMs, $items, null, $stretches);
            }
            foreach ($items ? $own : [] as [$from, $to]) {
                [$rota, $member] = $rotas[$id] ?? [null, 0];
                foreach ($rota?->between($from, $to) ?? [new Turn($from, $to, $anchorMs, [$layout->loops[$id]])] as $turn) {
                    self::turn($zone, $turn, $member, $path, $stretches);
                }
            }
        }
    }

    /** @param list<Stretch> $stretches */
    private static function turn(Zone $zone, Turn $turn, int $member, string $path, array &$stretches): void
    {
        $enabled = $zone->playlist->enabled();
        $pieces = $turn->loops[$member]->between($turn->fromMs - $turn->anchorMs, $turn->toMs - $turn->anchorMs, self::MOST + 1);
        if (count($stretches) + count($pieces) > self::MOST) {
            throw DocumentRefused::because('span.too-long', sprintf('In that span there are more than %s changes; ask for a shorter one.', number_format(self::MOST)), '/to');
        }
        foreach ($pieces as $piece) {
            $item = $enabled[$piece['item']];
            $stretches[] = new Stretch(
                $piece['from'] + $turn->anchorMs,
                $piece['to'] + $turn->anchorMs,
                $path,
                'item',
                $item->id,
                $item->media->name ?? $zone->layouts[$item->id]->name,
                null,
                $zone->follows === null ? 'its own list' : sprintf('changes with "%s"', $zone->follows),
            );
        }
        if ($pieces === []) {
            $stretches[] = new Stretch($turn->fromMs, $turn->toMs, $path, 'nothing', '', '', null, $enabled === [] ? 'its list is empty' : 'no item of its list is due');
        }
    }

    private static function played(Play $play, ?string $zone, ?string $name): Stretch
    {
        return new Stretch($play->fromMs, $play->toMs, $zone, $play->plays->kind ?? 'nothing', $play->plays->id ?? '', $name ?? '', $play->booking?->id, $play->why());
    }

    /** @param list<Stretch> $stretches */
    private static function sorted(array $stretches): self
    {
        // Stable: what begins together stays in the order of the layout, the whole display first.
        usort($stretches, static fn (Stretch $a, Stretch $b): int => $a->fromMs <=> $b->fromMs ?: ($a->zone !== null) <=> ($b->zone !== null));

        return new self($stretches);
    }
}
