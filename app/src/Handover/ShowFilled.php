<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Layout\MakeDesign;
use UpperPane\App\Layout\SaveDesign;
use UpperPane\App\Storage\Transaction;
use UpperPane\App\Time\Schedules;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Time\ItemActs;
use UpperPane\Core\Time\Schedule\BookingWithin;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/**
 * What an editor does with what she has filled in: it comes beside what plays, in a playlist that is open at the place, or takes its place, by a booking; for
 * a stated time, or until she takes it off. All else that stands there stays at the revision that was handed over.
 *
 * @phpstan-type Told array{display: string, how: string, offer: array<string, mixed>, instead_of: list<string>, in_turn_with: ?int}
 */
final readonly class ShowFilled
{
    public const BESIDE = 'beside';
    public const INSTEAD = 'instead';
    private const TOO_LONG = 'slot.long';

    /** What it takes the place of is told for so long ahead. */
    private const AHEAD_MS = 7 * 86_400_000;

    public function __construct(
        private EntityManagerInterface $entities,
        private Transaction $transaction,
        private Designs $anyDesigns,
        private SaveDesign $saveAny,
        private MakeDesign $makeAny,
        private Schedules $schedules,
        private Programmes $programmes,
        private HandedReleaseRepository $releases,
        private Offers $offers,
        private BeginHandover $begin,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Where it stands, and how it could.
     *
     * @param list<SurveyedDisplay> $displays
     * @return list<array<string, mixed>>
     */
    public function at(Design $filled, array $displays): array
    {
        $told = [];
        $standing = $this->releases->onEach($displays);
        foreach ($displays as $display) {
            $current = $standing[$display->id] ?? null;
            $open = $this->open($display, $current);
            $now = $this->local($display);
            $told[] = [
                'id' => $display->id,
                'name' => $display->display()->name,
                'place' => $display->place->id,
                'timezone' => self::timezone($display),
                'now' => (string) $now,
                'day_ends' => (string) LocalTime::ofSeconds(($now->day() + 1) * Calendar::DAY_S),
                'plays' => $current === null ? null : ['kind' => $current->sourceKind, 'name' => $current->name],
                'open' => $open === null ? null : ['id' => $open->id, 'name' => $open->name],
                'stands' => $this->stands($filled, $display, $current, $open),
            ];
        }

        return $told;
    }

    /**
     * @param non-empty-list<SurveyedDisplay> $displays
     * @param Node $within as the validity of an item: from, until, days, hours
     * @return list<Told> what it would mean; nothing is done
     */
    public function look(Design $filled, array $displays, string $how, Node $within): array
    {
        $before = array_map(fn (SurveyedDisplay $one): array => [$this->aside($one, $within), $this->releases->on($one)], $displays);
        try {
            $this->transaction->of(function () use ($filled, $displays, $how, $within): never {
                throw new LookedAt($this->offers->of(...$this->prepared($filled, $displays, $how, $within)));
            });
        } catch (LookedAt $looked) {
            $this->entities->clear();
        }
        $told = [];
        foreach ($looked->offers as $offer) {
            foreach ($offer->displays as $id) {
                $place = (int) array_search($id, array_map(static fn (SurveyedDisplay $one): string => $one->id, $displays), true);
                $open = $how === self::BESIDE ? $this->open($displays[$place], $before[$place][1]) : null;
                $told[] = [
                    'display' => $id,
                    'how' => $how,
                    'offer' => $offer->toArray(),
                    'instead_of' => $how === self::INSTEAD ? $before[$place][0] : [],
                    'in_turn_with' => $open === null ? null : count(Node::root($open->document)->field('items')->items()),
                ];
            }
        }

        return $told;
    }

    /**
     * @param non-empty-list<SurveyedDisplay> $displays
     * @throws Problem where something stops it: then nothing of it is done
     */
    public function show(Design $filled, array $displays, string $how, Node $within): Handing
    {
        return $this->transaction->of(function () use ($filled, $displays, $how, $within): Handing {
            $offers = $this->offers->of(...$this->prepared($filled, $displays, $how, $within));
            foreach ($offers as $offer) {
                foreach ($offer->findings->all as $finding) {
                    // A designer may know better; whoever has no eye for type is kept from it.
                    if ($finding->code === self::TOO_LONG) {
                        throw new Problem(409, 'show.too-long', sprintf('Nothing is shown. %s Viewers would see it cut.', $finding->message));
                    }
                }
            }

            return $this->begin->of($filled->name, $offers);
        });
    }

    /**
     * Wherever it stands on these, as a booking, in a playlist or by itself.
     *
     * @param non-empty-list<SurveyedDisplay> $displays
     */
    public function takeOff(Design $filled, array $displays): Handing
    {
        return $this->transaction->of(function () use ($filled, $displays): Handing {
            [$contents, $back, $changed] = [[], [], []];
            foreach ($displays as $display) {
                $current = $this->releases->on($display) ?? throw self::standsNot($filled, $display);
                if ($current->sourceKind === DesignKind::Filled->value && $current->sourceId === $filled->id) {
                    $back[$display->id] = $this->before($filled, $display);
                    continue;
                }
                $own = $this->anyDesigns->ruling(DesignKind::Schedule, $display->id, null);
                foreach (array_filter([$own, $this->open($display, $current)]) as $design) {
                    $list = $design->kind === DesignKind::Schedule ? 'bookings' : 'items';
                    $left = self::without($design, $list, $filled);
                    if (count($left) < count(Node::root($design->document)->field($list)->items())) {
                        $changed[$design->id] = $this->saved($design, [$list => $left] + $design->document, sprintf('took "%s" off', $filled->name));
                    }
                }
                if (array_intersect_key($changed, $this->releases->contents($current)->parts ?? []) === []) {
                    throw self::standsNot($filled, $display);
                }
                $contents[$display->id] = $this->contents(Playable::kept($current->sourceKind, $current->sourceId, null, $current->name), $display, $current, array_keys($changed));
            }
            $of = static fn (SurveyedDisplay $one): Contents => $contents[$one->id];
            $offers = $contents === [] ? [] : $this->offers->of($of, array_map(strval(...), array_keys($contents)), self::apart($contents));
            $numbers = array_map(static fn (HandedRelease $release): int => $release->number, $back);

            return $this->begin->of(sprintf('%s, taken off', $filled->name), [...$offers, ...($back === [] ? [] : $this->offers->back($back))], $numbers);
        });
    }

    /**
     * Saved as it has to be, and what would be handed over to each.
     *
     * @param non-empty-list<SurveyedDisplay> $displays
     * @return array{\Closure(SurveyedDisplay): Contents, list<string>, array<string>}
     * @throws Refused
     */
    private function prepared(Design $filled, array $displays, string $how, Node $within): array
    {
        [$contents, $saved] = [[], []];
        foreach ($displays as $display) {
            $current = $this->releases->on($display);
            $contents[$display->id] = $how === self::BESIDE
                ? $this->beside($filled, $display, $current, $within, $saved)
                : $this->instead($filled, $display, $current, $within);
        }

        return [
            static fn (SurveyedDisplay $one): Contents => $contents[$one->id],
            array_map(static fn (SurveyedDisplay $one): string => $one->id, $displays),
            self::apart($contents),
        ];
    }

    /** @param array<string, true> $saved playlists that have it already in this act */
    private function beside(Design $filled, SurveyedDisplay $display, ?HandedRelease $current, Node $within, array &$saved): Contents
    {
        $open = $this->open($display, $current);
        if ($open === null || $current === null) {
            throw new Problem(409, 'show.nowhere-open', sprintf('No playlist that plays on "%s" is open there. It can take the place of what plays.', $display->display()->name));
        }
        if (!isset($saved[$open->id])) {
            $valid = $within->fields();
            $item = ['layout' => ['ref' => $filled->id]] + ($valid === [] ? [] : ['valid' => $valid]);
            $items = ItemActs::done(self::without($open, 'items', $filled), [], Node::root(['do' => 'add', 'items' => [$item]]));
            $this->saved($open, ['items' => $items] + $open->document, sprintf('added "%s"', $filled->name));
            $saved[$open->id] = true;
        }

        return $this->contents(Playable::kept($current->sourceKind, $current->sourceId, null, $current->name), $display, $current, [$open->id]);
    }

    private function instead(Design $filled, SurveyedDisplay $display, ?HandedRelease $current, Node $within): Contents
    {
        $ruling = $this->schedules->ruling($display);
        if ($within->fields() === [] && ($ruling === [] || ($current !== null && $current->sourceKind !== 'schedule'))) {
            return $this->programmes->now(Playable::kept('filled', $filled->id, $filled->revision, $filled->name), $display);
        }
        $surveyed = $display->display();
        $own = $this->anyDesigns->ruling(DesignKind::Schedule, $display->id, null) ?? $this->makeAny->of(
            DesignKind::Schedule,
            sprintf('Bookings of %s', $surveyed->name),
            ['timezone' => self::timezone($display), 'bookings' => []] + $this->standby($current),
            $display,
            null,
        );
        $nowMs = 1000 * $this->clock->now()->getTimestamp();
        $booking = BookingWithin::of("filled-$filled->id", $filled->name, Played::of('layout', $filled->id), $within, $this->local($display), $nowMs);
        $this->saved($own, ['bookings' => [...self::without($own, 'bookings', $filled), $booking]] + $own->document, sprintf('booked "%s"', $filled->name));

        return $this->contents(Playable::kept('schedule', $own->id, null, $own->name), $display, $current, [$own->id]);
    }

    /** What the clock of the place says. */
    private function local(SurveyedDisplay $display): LocalTime
    {
        return LocalTime::ofSeconds(WallClock::in(self::timezone($display))->local($this->clock->now()->getTimestamp()));
    }

    private static function timezone(SurveyedDisplay $display): string
    {
        return $display->resolved()->timezone() ?? $display->display()->timezone;
    }

    /**
     * What plays there by now, and goes on as soon as nothing is booked.
     *
     * @return array{standby?: array<string, string>}
     */
    private function standby(?HandedRelease $current): array
    {
        return match ($current?->sourceKind) {
            'layout', 'filled' => ['standby' => ['layout' => $current->sourceId]],
            'playlist', 'media' => ['standby' => [$current->sourceKind => $current->sourceId]],
            default => [],
        };
    }

    /**
     * With what was changed here as it is saved now, and all else as it was handed over.
     *
     * @param list<array-key> $changed ids of designs
     */
    private function contents(Playable $source, SurveyedDisplay $display, ?HandedRelease $current, array $changed): Contents
    {
        // What was saved in this act is asked for by what follows.
        $this->entities->flush();
        $now = $this->programmes->now($source, $display);
        $then = $current === null ? null : $this->releases->contents($current);
        $kept = array_diff_key(array_intersect_key($then->parts ?? [], $now->parts), array_flip($changed));

        return new Contents($now->source, array_replace($now->parts, $kept), $now->ruling, $now->document, $now->settings);
    }

    /** The nearest playlist that is open where the display hangs, and plays there. */
    private function open(SurveyedDisplay $display, ?HandedRelease $current): ?Design
    {
        $parts = $current === null ? [] : $this->releases->contents($current)->parts ?? [];
        $places = $display->place->outwards();
        $open = array_filter(
            $this->anyDesigns->those(array_map(strval(...), array_keys($parts))),
            static fn (Design $one): bool => $one->kind === DesignKind::Playlist && in_array($one->placeId, $places, true),
        );
        usort($open, static fn (Design $a, Design $b): int => array_search($a->placeId, $places, true) <=> array_search($b->placeId, $places, true));

        return $open[0] ?? null;
    }

    /** @return ?array{how: string, until: ?string} */
    private function stands(Design $filled, SurveyedDisplay $display, ?HandedRelease $current, ?Design $open): ?array
    {
        if ($current === null) {
            return null;
        }
        if ($current->sourceKind === DesignKind::Filled->value && $current->sourceId === $filled->id) {
            return ['how' => self::INSTEAD, 'until' => null];
        }
        $own = $this->anyDesigns->ruling(DesignKind::Schedule, $display->id, null);
        foreach (Node::root($own->document ?? [])->optional('bookings')?->items() ?? [] as $booking) {
            if ($booking->field('id')->value === "filled-$filled->id") {
                return ['how' => self::INSTEAD, 'until' => $booking->optional('until')?->text() ?? ($booking->has('rrule') ? null : $booking->field('end')->text())];
            }
        }
        foreach (Node::root($open->document ?? [])->optional('items')?->items() ?? [] as $item) {
            if (self::isOf($item, $filled)) {
                return ['how' => self::BESIDE, 'until' => $item->optional('valid')?->optional('until')?->text()];
            }
        }

        return null;
    }

    /** @return list<string> names of what would play there otherwise */
    private function aside(SurveyedDisplay $display, Node $within): array
    {
        $current = $this->releases->on($display);
        $schedule = $current?->sourceKind === 'schedule' ? $this->schedules->on($display) : null;
        if ($schedule === null) {
            return $current === null ? [] : [$current->name];
        }
        $clock = WallClock::in($schedule->timezone);
        $local = static fn (string $name, int $otherwise): int => ($edge = $within->optional($name)) === null ? $otherwise : 1000 * $clock->utcOrBefore(LocalTime::fromNode($edge)->seconds);
        $from = $local('from', 1000 * $this->clock->now()->getTimestamp());
        $names = $this->schedules->names($schedule);
        $plays = Plays::of($schedule, $clock, $from, max($from + 1000, min($local('until', $from + self::AHEAD_MS), $from + self::AHEAD_MS)));
        $found = array_map(static fn ($one): string => $one->booking->name ?? ($one->plays === null ? '' : $names[$one->plays->key()] ?? ''), $plays->pieces);

        return array_values(array_unique(array_filter($found, static fn (string $name): bool => $name !== '')));
    }

    private function before(Design $filled, SurveyedDisplay $display): HandedRelease
    {
        foreach ($this->releases->of($display) as $release) {
            if ($release->sourceId !== $filled->id && !$release->pruned) {
                return $release;
            }
        }
        throw new Problem(409, 'show.nothing-before', sprintf('Nothing stood on "%s" before. Something else can take its place.', $display->display()->name));
    }

    /** @param array<string, mixed> $document */
    private function saved(Design $design, array $document, string $note): Design
    {
        $this->saveAny->of($design->kind, $design->id, $design->revision, $document, $note)->told(static fn (Design $one): array => $one->summary());

        return $design;
    }

    /** @return list<array<string, mixed>> bookings or items that are not of it */
    private static function without(Design $design, string $list, Design $filled): array
    {
        $left = [];
        foreach (Node::root($design->document)->field($list)->items() as $one) {
            if ($list === 'items' ? !self::isOf($one, $filled) : $one->field('id')->value !== "filled-$filled->id") {
                $left[] = $one->fields();
            }
        }

        return $left;
    }

    private static function isOf(Node $item, Design $filled): bool
    {
        return $item->optional('layout')?->optional('ref')?->value === $filled->id;
    }

    /**
     * @param array<string, Contents> $contents
     * @return array<string> what tells displays apart that are alike otherwise
     */
    private static function apart(array $contents): array
    {
        return array_map(static fn (Contents $one): string => $one->key(), $contents);
    }

    private static function standsNot(Design $filled, SurveyedDisplay $display): Problem
    {
        return new Problem(409, 'show.stands-not', sprintf('"%s" does not stand on "%s".', $filled->name, $display->display()->name));
    }
}
