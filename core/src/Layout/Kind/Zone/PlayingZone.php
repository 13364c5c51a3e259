<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Zone;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\BudgetExceeded;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Compares;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\FitsContent;
use UpperPane\Core\Layout\Kind\FittedContent;
use UpperPane\Core\Layout\Kind\HasMedia;
use UpperPane\Core\Layout\Kind\Nests;
use UpperPane\Core\Layout\Kind\Paints;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Paint\PaintLayer;
use UpperPane\Core\Layout\Told\PlaysByData;
use UpperPane\Core\Layout\Told\RowTeller;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Media\Swatches;
use UpperPane\Core\Time\CycleFigures;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\ItemActs;
use UpperPane\Core\Time\ItemComings;
use UpperPane\Core\Time\Lasts;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\RowItems;
use UpperPane\Core\Time\WhenInTime;

/** A zone with all that it plays: its list, the layouts in it, and its standby. */
final readonly class PlayingZone implements HasMedia, Nests, FitsContent, Paints, Compares, PlaysByData
{
    /**
     * @param array<string, Composed> $layouts the layouts that items play, by item id
     * @param ?Composed $standby what plays whenever nothing of its list is due, on a canvas of its size
     * @param ?string $follows id of the zone that sets the moments of this one
     * @param ?Colour $ground what is seen beside content that leaves bars
     * @param array<string, mixed> $written as it stands in its document
     * @param Playlist $list as it is written
     * @param Playlist $playlist the same with the items that rows of data make in it
     * @param array<string, WhenInTime> $whens only while what holds items are due, by their ids
     * @param array<string, RowByRow> $each what rows make of items, by their ids
     * @param int $atMs the instant at which it is looked at, Unix ms
     */
    private function __construct(
        private string $id,
        private Rect $rect,
        private bool $isHidden,
        public Playlist $list,
        public Playlist $playlist,
        public array $layouts,
        public ?Composed $standby,
        public ?string $follows,
        public ?Colour $ground,
        private array $written,
        public array $whens = [],
        public array $each = [],
        private int $atMs = 0,
    ) {
    }

    /**
     * @param string $path JSON Pointer to the zone
     * @throws DocumentRefused
     */
    public static function of(Zone $zone, Composer $composer, string $path): self
    {
        $list = $composer->list($zone->list, $zone->ref, "$path/playlist");
        [$isElsewhere, $size] = [$zone->ref !== null, $zone->rect()->size()];
        $each = self::eachOf($list, $zone->layouts, $isElsewhere, $size, $composer, "$path/playlist");

        return self::bounded("$path/playlist", new self(
            $zone->id(),
            $zone->rect(),
            $zone->isHidden(),
            $list,
            $list->rowByRow(self::rowsOf($each)),
            self::layoutsOf($list, $zone->layouts, $each, $isElsewhere, $size, $zone->follows !== null, $composer, "$path/playlist"),
            $zone->standby === null ? null : $composer->standby($zone->standby, $zone->rect()->size(), $zone->id(), "$path/standby"),
            $zone->follows,
            $zone->ground,
            $zone->toArray(),
            self::whensOf($list, $isElsewhere, $composer, "$path/playlist"),
            $each,
            $composer->surroundings->atMs,
        ));
    }

    /** @throws BudgetExceeded where rows make it go through too many slots until all begins again */
    private static function bounded(string $path, self $zone): self
    {
        if ($zone->each !== []) {
            Budget::ofSlots(count($zone->cycle()), $path);
        }

        return $zone;
    }

    /**
     * A zone over a whole canvas that plays a list handed over as such.
     *
     * @throws DocumentRefused
     */
    public static function whole(Size $canvas, Playlist $list, Composer $composer, string $id = 'whole'): self
    {
        $list = $composer->list($list, null, '');
        $standby = $list->standby === null ? null : $composer->standby($list->standby, $canvas, $id, '/standby');
        $each = self::eachOf($list, [], false, $canvas, $composer, '');

        return self::bounded('', new self(
            $id,
            Rect::whole($canvas),
            false,
            $list,
            $list->rowByRow(self::rowsOf($each)),
            self::layoutsOf($list, [], $each, false, $canvas, false, $composer, ''),
            $standby,
            null,
            null,
            [],
            self::whensOf($list, false, $composer, ''),
            $each,
            $composer->surroundings->atMs,
        ));
    }

    /**
     * Those among elements that are zones.
     *
     * @param list<Element> $elements
     * @return array<string, self> by id, lowest first
     */
    public static function among(array $elements): array
    {
        $zones = [];
        foreach ($elements as $element) {
            if ($element instanceof self) {
                $zones[$element->id] = $element;
            }
        }

        return $zones;
    }

    public function id(): string
    {
        return $this->id;
    }

    public function rect(): Rect
    {
        return $this->rect;
    }

    public function kind(): string
    {
        return Zone::KIND;
    }

    public function covers(): bool
    {
        return true;
    }

    public function isHidden(): bool
    {
        return $this->isHidden;
    }

    public function toArray(): array
    {
        return $this->written;
    }

    /**
     * The order in which its enabled items play until all begins again; of what rows make of one those whose rows are chosen when it is looked at.
     *
     * @return list<int>
     */
    private function cycle(): array
    {
        return $this->playlist->cycle($this->each === [] ? null : array_keys(ItemComings::places($this->list, $this->rowItems(), $this->atMs, static fn (): bool => true)));
    }

    /** How many slots that has. */
    public function slots(): int
    {
        return $this->each === [] ? $this->playlist->slots() : count($this->cycle());
    }

    public function conditions(): array
    {
        return $this->ofItems($this->whens);
    }

    public function rowByRow(): array
    {
        return $this->ofItems($this->each);
    }

    /**
     * @template T
     * @param array<string, T> $things by item id
     * @return list<array{string, T}> those of enabled items, which are told in words
     */
    private function ofItems(array $things): array
    {
        $told = [];
        foreach ($this->list->enabled() as $item) {
            if (isset($things[$item->id])) {
                $told[] = [sprintf('"%s" in "%s"', $this->nameOf($item), $this->id), $things[$item->id]];
            }
        }

        return $told;
    }

    /** @return array<string, RowItems> what rows make of its items, by their ids */
    public function rowItems(): array
    {
        return self::rowsOf($this->each);
    }

    /**
     * @param array<string, RowByRow> $each
     * @return array<string, RowItems>
     */
    private static function rowsOf(array $each): array
    {
        return array_map(static fn (RowByRow $one): RowItems => $one->items, $each);
    }

    /** The zone's loop, of the enabled items; $leader is the loop of the zone it follows. */
    public function loop(?Loop $leader): Loop
    {
        $cycle = $this->cycle();

        return $leader === null
            ? Loop::ofCycle($cycle, array_map($this->lengthMs(...), $this->playlist->enabled()))
            : $leader->followedBy($cycle);
    }

    /**
     * How it goes round a loop: lengths, plays an hour and shares, and the names of what it plays in the order of its scenes.
     *
     * @return array<string, mixed>
     */
    public function playing(Loop $loop): array
    {
        $enabled = $this->playlist->enabled();

        $named = array_filter($this->list->all(), static fn (Item $item): bool => $item->enabled);
        $scenes = array_map(fn (Item $item): array => ['id' => $item->id, 'name' => $this->nameOf($item)], array_values($named));

        $all = $this->list->all();
        $figures = CycleFigures::of($loop, $all, $enabled);
        $items = array_map(fn (array $figure, Item $item): array => $figure + ['may_last' => ItemActs::mayLast($item, $this->follows !== null)], $figures['items'], $all);

        return ['items' => $items] + $figures + ($this->each === [] ? [] : ['row_by_row' => array_map(strval(...), array_keys($this->each))]) + [
            'scenes' => [...$scenes, ...($this->standby === null ? [] : [['id' => $this->standby->id, 'name' => $this->standby->name, 'standby' => true]])],
        ];
    }

    /** The layout that an item plays, told over its row where it is one of those that rows make. */
    public function layoutOf(Item $item): Composed
    {
        return $item->row === null ? $this->layouts[$item->id] : $this->each[$item->id]->layout($item->row);
    }

    public function nameOf(Item $item): string
    {
        return $item->media->name ?? $this->layouts[$item->id]->name;
    }

    /** What an item lasts by itself, in ms; null without end. */
    public function lengthMs(Item $item): ?int
    {
        return match (true) {
            $item->durationMs !== null => $item->durationMs,
            $item->lasts === Lasts::Endless => null,
            default => $this->ownLengthMs($item),
        };
    }

    /**
     * What each of the enabled items of its list lasts that begins at an instant (Unix ms), in ms; null without end.
     *
     * @return list<?int>
     */
    public function lengthsAt(int $ms): array
    {
        return array_map(
            fn (Item $item): ?int => $this->isAsLongAsData($item) ? $this->layouts[$item->id]->lengthByData($ms) ?? $this->lengthMs($item) : $this->lengthMs($item),
            $this->list->enabled(),
        );
    }

    /**
     * Of each item that lasts as long as its layout tells data, if that ever changes: the first instant after one at which it does.
     *
     * @return list<\Closure(int): ?int>
     */
    public function lengthChanges(): array
    {
        $lasting = array_filter($this->list->enabled(), fn (Item $item): bool => $this->isAsLongAsData($item) && $this->layouts[$item->id]->lengthChangesAfter(PHP_INT_MIN) !== null);

        return array_values(array_map(fn (Item $item): \Closure => $this->layouts[$item->id]->lengthChangesAfter(...), $lasting));
    }

    /** Whether anything that it plays comes and goes by itself, or lasts another time then. */
    public function comesAndGoes(): bool
    {
        $byRows = array_filter($this->each, static fn (RowByRow $one): bool => $one->items->changesAfter(PHP_INT_MIN) !== null);

        return $byRows !== [] || $this->whens !== [] || $this->lengthChanges() !== [] || ItemComings::areAny($this->list);
    }

    /** Whether an item lasts as long as its layout tells data. */
    public function isAsLongAsData(Item $item): bool
    {
        return $item->layout !== null && $item->durationMs === null && $item->lasts !== Lasts::Endless && $this->layouts[$item->id]->lengthByData() !== null;
    }

    /** Length of the film, or of the nested layout's loop, in ms; null for a picture or an endless layout. */
    public function ownLengthMs(Item $item): ?int
    {
        return $item->media !== null ? $item->media->lengthMs : $this->layouts[$item->id]->loopMs();
    }

    public function fit(Item $item): Fit
    {
        return Fit::of($item->media->size ?? $this->layouts[$item->id]->canvas, $this->rect->size(), $item->fit, $item->focusX, $item->focusY);
    }

    public function media(): array
    {
        return array_values(array_filter(array_map(static fn (Item $item): ?Media => $item->media, $this->list->enabled())));
    }

    public function nested(): array
    {
        $nested = [];
        foreach ($this->list->enabled() as $item) {
            if ($item->media === null) {
                $nested[] = $this->layouts[$item->id];
            }
        }

        return $this->standby === null ? $nested : [...$nested, $this->standby];
    }

    public function fitted(): array
    {
        return array_map(
            fn (Item $item): FittedContent => new FittedContent($item->id, $this->nameOf($item), $this->fit($item), $item->fit, $item->media === null),
            $this->list->enabled(),
        );
    }

    public function turns(): array
    {
        return $this->list->enabled();
    }

    public function paint(?Item $due, ?Swatches $swatches): ?array
    {
        $layers = $this->ground === null ? [] : [PaintLayer::ofFill($this->rect, $this->ground)];
        $item = $due ?? $this->list->enabled()[0] ?? null;
        if ($item === null) {
            return $layers;
        }
        $swatch = $item->media === null ? null : $swatches?->of($item->media);

        return $swatch === null ? null : [...$layers, PaintLayer::ofItem($this->rect, $this->fit($item), $swatch)];
    }

    public function isSolid(): bool
    {
        return false;
    }

    public function changesFrom(Element $before): array
    {
        return $before instanceof self ? ZoneChanges::between($before, $this) : [];
    }

    /**
     * @param bool $isElsewhere whether the list is a document of its own
     * @return array<string, WhenInTime> by item id
     * @throws Refused
     */
    private static function whensOf(Playlist $list, bool $isElsewhere, Composer $composer, string $path): array
    {
        $whens = [];
        foreach ($list->all() as $index => $item) {
            if ($item->when !== null) {
                $whens[$item->id] = $composer->when($item->when, self::pathOf($list, $index, $isElsewhere, $path) . '/when');
            }
        }

        return $whens;
    }

    /** JSON Pointer to an item. */
    private static function pathOf(Playlist $list, int $index, bool $isElsewhere, string $path): string
    {
        return match (true) {
            $isElsewhere => $path,
            $index < count($list->items) => "$path/items/$index",
            $list->interleaved !== null => "$path/interleave/ref",
            default => sprintf('%s/interleave/items/%d', $path, $index - count($list->items)),
        };
    }

    /**
     * What rows make of items. That a layout lies within itself is found first.
     *
     * @param array<string, Layout> $read those that have been read, by item id
     * @param bool $isElsewhere whether the list is a document of its own
     * @return array<string, RowByRow> by item id
     * @throws Refused
     */
    private static function eachOf(Playlist $list, array $read, bool $isElsewhere, Size $size, Composer $composer, string $path): array
    {
        $each = [];
        foreach ($list->all() as $index => $item) {
            if ($item->each !== null && $item->layout !== null && $item->enabled) {
                $at = self::pathOf($list, $index, $isElsewhere, $path);
                $layout = $item->layout;
                $composer->nested($layout, $read[$item->id] ?? null);
                $reading = $composer->reading($item->each, "$at/each");
                $items = RowItems::of($reading->inTime);
                Budget::ofRowItems(count($items->rows), "$at/each");
                $each[$item->id] = new RowByRow($items, $reading, static fn (RowTeller $row): Composed => $composer->toldOver($row)->nested($layout, $read[$item->id] ?? null)->for($size));
            }
        }

        return $each;
    }

    /**
     * @param array<string, Layout> $read those that have been read, by item id
     * @param array<string, RowByRow> $each
     * @param bool $isElsewhere whether the list is a document of its own
     * @return array<string, Composed> of what rows make of an item that over the longest values of all of them
     * @throws DocumentRefused
     */
    private static function layoutsOf(Playlist $list, array $read, array $each, bool $isElsewhere, Size $size, bool $follows, Composer $composer, string $path): array
    {
        $layouts = [];
        foreach ($list->all() as $index => $item) {
            $at = self::pathOf($list, $index, $isElsewhere, $path);
            if ($item->layout !== null) {
                $layouts[$item->id] = isset($each[$item->id]) ? $each[$item->id]->longest() : $composer->nested($item->layout, $read[$item->id] ?? null)->for($size);
                if ($item->durationMs === null && $item->lasts !== Lasts::Endless && !$layouts[$item->id]->hasLoop() && !$follows) {
                    throw DocumentRefused::because(Reason::FieldMissing, "$at/duration_ms is missing: the layout has no loop of its own.", "$at/duration_ms");
                }
            } elseif ($item->lasts === Lasts::Leader && $item->durationMs === null && !$follows) {
                throw DocumentRefused::because(Reason::ValueUnknown, "$at/lasts is \"leader\", but the zone follows no other.", "$at/lasts");
            }
        }

        return $layouts;
    }
}
