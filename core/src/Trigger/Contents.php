<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Data\Rows\RowsInTime;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Check\Subject;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\HasItems;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Told\RowTeller;
use UpperPane\Core\Units\Instant;

/** What the states of a map play, as far as it is there. */
final class Contents
{
    /** @var array<string, ?Composed> by state */
    private array $composed = [];

    /** @param Size $canvas on which it plays */
    public function __construct(public readonly TriggerMap $map, private readonly Composer $composer, public readonly Size $canvas)
    {
    }

    /** The same of another map that names nothing that this one does not. */
    public function with(TriggerMap $map): self
    {
        return new self($map, $this->composer, $this->canvas);
    }

    /**
     * Null where a state plays nothing of its own, or nothing of that name is there.
     *
     * @throws Refused where it is there and cannot be worked out
     */
    public function of(State $state): ?Composed
    {
        if (!array_key_exists($state->id, $this->composed)) {
            $this->composed[$state->id] = $state->plays !== null && $this->isThere($state) ? $this->composer->played($state->plays, $this->canvas, path: $this->path($state) . '/plays') : null;
        }

        return $this->composed[$state->id];
    }

    /**
     * What a state shows, told over what was carried to it.
     *
     * @param ?array<string, string|int|float|bool|Instant|Day|null> $carried
     * @param ?Size $canvas on which it plays; null for the whole
     * @throws Refused where it is not there, or cannot be worked out
     */
    public function shown(State $state, ?array $carried, ?Size $canvas = null): ?Composed
    {
        if ($state->plays === null) {
            return null;
        }
        $composer = $carried === null ? $this->composer : $this->composer->toldOver(new RowTeller($carried, $this->composer->formats($this->composer->surroundings->speaking->tellsIn(null, null))));

        return $composer->played($state->plays, $canvas ?? $this->canvas, path: $this->path($state) . '/plays');
    }

    /**
     * What comes with a state that is entered to what it plays: the row that came, else the first of its signal's rows, else the figure.
     *
     * @return ?array<string, string|int|float|bool|Instant|Day|null> null where its way carries nothing
     * @throws Refused where rows cannot be worked out
     */
    public function carried(Entered $entered): ?array
    {
        if (!$entered->carries) {
            return null;
        }
        $row = array_filter($entered->carried->row ?? [], static fn (mixed $one): bool => $one === null || is_scalar($one));
        if ($entered->carried?->row !== null) {
            return $row;
        }
        // Where nothing of its source is known, the figure itself is.
        $first = $this->rows($entered->why)?->at($entered->atMs)->rows[0] ?? null;
        $value = $entered->carried?->value();

        return $first ?? ($value === null ? [] : ['value' => $value]);
    }

    /** @return ?RowsInTime the rows of a signal; null where it has none, or nothing of their source is known */
    public function rows(string $signal): ?RowsInTime
    {
        $rows = $this->map->signals[$signal]->rows;

        return $rows === null ? null : $this->composer->surroundings->feeds?->rows($rows, $this->composer->surroundings->timezone);
    }

    /** The display on which it runs; null where that is not known. */
    public function display(): ?Display
    {
        return $this->composer->surroundings->display;
    }

    /**
     * How high the smallest capitals of a state are on the display, mm; null where it has no words, or no display is known.
     *
     * @throws Refused
     */
    public function smallestCapMm(State $state): ?float
    {
        $layout = $this->of($state);
        $subject = $layout === null ? null : Subject::of($layout, $this->composer->surroundings);
        $mmPerPx = $subject?->mmPerCanvasPx();
        $caps = [];
        foreach ($mmPerPx === null ? [] : $subject->measurable() as $text) {
            $caps[] = $mmPerPx * $text->smallestPx() * ($subject->faces?->capShare($text->style->family, $text->style->weight) ?? Legibility::CAP_SHARE);
        }

        return $caps === [] ? null : min($caps);
    }

    private function isThere(State $state): bool
    {
        $id = $state->plays->id ?? '';

        return match ($state->plays?->kind) {
            'media' => $this->composer->library->media($id) !== null,
            'playlist' => $this->composer->library->playlist($id) !== null,
            default => $this->composer->library->layout($id) !== null || $this->composer->library->filling($id) !== null,
        };
    }

    /**
     * The map with each state that stands for one length of what it plays standing for that long.
     *
     * @param bool $isRun whether it is to be run: then all of these have to be there
     * @throws Refused where what a state plays has no length, or is not there
     */
    public function lasting(bool $isRun = true): TriggerMap
    {
        $lengths = [];
        foreach ($this->map->states as $state) {
            if ($state->isOwn && ($isRun || $this->isThere($state))) {
                $lengths[$state->id] = $this->lengthMs($state) ?? throw $this->refused($state);
            }
        }

        return $lengths === [] ? $this->map : $this->map->lasting($lengths);
    }

    /** The length of a film, or of the longest loop; null where it has none. */
    private function lengthMs(State $state): ?int
    {
        if ($state->plays?->kind === 'media') {
            return $this->composer->library->media($state->plays->id)?->lengthMs;
        }
        $composed = $this->of($state);
        $periods = array_filter(array_map(static fn ($loop): int => $loop->periodMs ?? 0, $composed->loops ?? []));

        return $composed?->lengthByData() ?? ($periods === [] ? null : max($periods));
    }

    private function refused(State $state): DocumentRefused
    {
        $path = $this->path($state) . '/linger';
        $plays = $state->plays;
        $isThere = $plays !== null && $this->isThere($state);

        return DocumentRefused::because($isThere || $plays === null ? Reason::ValueRange : Reason::RefUnknown, "$path is \"own\", and " . match (true) {
            $plays === null => 'the state plays nothing that has a length.',
            !$isThere => sprintf('the %s "%s", whose length is meant, is not given.', $plays->kind, $plays->id),
            default => sprintf('the %s "%s" has no length: say for how long with linger_ms.', $plays->kind, $plays->id),
        }, $path);
    }

    private function path(State $state): string
    {
        return '/states/' . array_search($state->id, array_keys($this->map->states), true);
    }

    public static function isZoneOf(Layout $layout, string $zone): bool
    {
        return $layout->element($zone) instanceof HasItems;
    }

    /** Whether a layout that is there has a zone; null where no layout is there. */
    public function hasZone(string $zone, string ...$layouts): ?bool
    {
        foreach ($layouts as $id) {
            $layout = $this->composer->library->layout($id);
            if ($layout !== null && self::isZoneOf($layout, $zone)) {
                return true;
            }
        }

        return $layouts === [] ? null : false;
    }
}
