<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Layout\Told\Reading;
use UpperPane\Core\Layout\Told\ReadsData;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Schedule\Play;
use UpperPane\Core\Time\SteadyTurns;
use UpperPane\Core\Time\Turn;
use UpperPane\Core\Time\Turns;

/** What the whole display and each of its zones show from when to when, in words. */
final class BaseStretches
{
    /** @var list<Stretch> */
    private array $stretches = [];

    public function __construct(private readonly Base $base, private readonly bool $items)
    {
    }

    /**
     * @param int $fromMs Unix ms
     * @return list<Stretch>
     */
    public function between(int $fromMs, int $toMs): array
    {
        $this->stretches = [];
        foreach ($this->base->timetable()->between($fromMs, $toMs) as $play) {
            $layout = $play->plays === null ? null : $this->base->whole[$play->plays->key()];
            $this->add(self::played($play, $play->fromMs, $play->toMs, null, $layout?->name));
            if ($layout !== null) {
                $this->zones($layout, null, $play->fromMs, $play->toMs, $play->anchorMs);
            }
        }

        return $this->stretches;
    }

    /** @param ?string $within the zone in which the layout is seen; null for what plays on the whole display, whose zones can be booked */
    private function zones(Composed $layout, ?string $within, int $fromMs, int $toMs, int $anchorMs): void
    {
        $turns = $within === null ? $this->base->turns($layout, $anchorMs) : $layout->turns($this->base->clock, $anchorMs);
        foreach ($layout->visible()->zones as $id => $zone) {
            $path = $within === null ? (string) $id : "$within/$id";
            if (!$this->items && ($within !== null || !isset($this->base->zones[$id]))) {
                continue;
            }
            $own = count($zone->playlist->enabled());
            foreach ($turns[$id]->between($fromMs, $toMs) as $turn) {
                $play = $turn->play;
                $other = $play?->plays === null ? null : $this->base->zones[$id][$play->plays->key()] ?? null;
                if ($play !== null && $other !== null) {
                    $this->add(self::played($play, $turn->fromMs, $turn->toMs, $path, $other->name));
                    $this->zones($other, $path, $turn->fromMs, $turn->toMs, $turn->anchorMs);
                } elseif ($this->items && $zone->standby !== null && $turn->loop->items === [$own]) {
                    $this->add(new Stretch($turn->fromMs, $turn->toMs, $path, 'layout', $zone->standby->id, $zone->standby->name, null, 'standby: nothing of its list is due'));
                    $this->zones($zone->standby, $path, $turn->fromMs, $turn->toMs, $turn->anchorMs);
                } elseif ($this->items) {
                    $this->turn($zone, $turn, $path);
                }
            }
        }
        foreach ($this->items ? $layout->visible()->elements : [] as $element) {
            $reading = $element instanceof ReadsData ? $element->reads() : null;
            if ($reading !== null) {
                $this->rows($element, $reading, $turns[$element->id()] ?? new SteadyTurns(Loop::endless(0)), $within === null ? $element->id() : "$within/{$element->id()}", $fromMs, $toMs);
            }
        }
    }

    /** What rows an element tells, from when to when. */
    private function rows(Element $element, Reading $reading, Turns $turns, string $path, int $fromMs, int $toMs): void
    {
        foreach ($turns->between($fromMs, $toMs) as $turn) {
            $begunMs = max($turn->anchorMs, $turn->fromMs);
            $this->add(new Stretch($turn->fromMs, $turn->toMs, $path, 'rows', $element->id(), $reading->said($begunMs), null, sprintf('rows of "%s"', $reading->sourceName())));
        }
    }

    private function turn(PlayingZone $zone, Turn $turn, string $path): void
    {
        $enabled = $zone->playlist->enabled();
        $pieces = $turn->loop->between($turn->fromMs - $turn->anchorMs, $turn->toMs - $turn->anchorMs, Budget::STRETCHES + 1);
        Budget::ofStretches(count($this->stretches) + count($pieces), '/to');
        foreach ($pieces as $piece) {
            $item = $enabled[$piece['item']];
            $this->stretches[] = new Stretch(
                $piece['from'] + $turn->anchorMs,
                $piece['to'] + $turn->anchorMs,
                $path,
                'item',
                $item->id,
                $item->row === null ? $zone->nameOf($item) : $zone->nameOf($item) . ': ' . $zone->each[$item->id]->said($item->row),
                null,
                $zone->follows === null ? 'its own list' : sprintf('changes with "%s"', $zone->follows),
            );
        }
        if ($pieces === []) {
            $this->add(new Stretch($turn->fromMs, $turn->toMs, $path, 'nothing', '', '', null, $enabled === [] ? 'its list is empty' : 'no item of its list is due'));
        }
    }

    private function add(Stretch $stretch): void
    {
        $this->stretches[] = $stretch;
        Budget::ofStretches(count($this->stretches), '/to');
    }

    private static function played(Play $play, int $fromMs, int $toMs, ?string $zone, ?string $name): Stretch
    {
        return new Stretch($fromMs, $toMs, $zone, $play->plays->kind ?? 'nothing', $play->plays->id ?? '', $name ?? '', $play->booking?->id, $play->why());
    }
}
