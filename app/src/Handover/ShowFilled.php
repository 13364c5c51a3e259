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
use UpperPane\App\Storage\Transaction;
use UpperPane\App\Time\Schedules;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Time\ItemActs;
use UpperPane\Core\Time\Schedule\BookingWithin;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Plays;
use UpperPane\Core\Time\Schedule\Ruling;
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
        private OwnSchedules $own,
        private Schedules $schedules,
        private HandedReleaseRepository $releases,
        private Offers $offers,
        private BeginHandover $begin,
        private WhereShown $where,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param non-empty-list<SurveyedDisplay> $displays
     * @param Node $within as the validity of an item: from, until, days, hours
     * @return list<Told> what it would mean; nothing is done
     */
    public function look(Design $filled, array $displays, string $how, Node $within): array
    {
        $standing = $this->releases->onEach($displays);
        $rules = $how === self::INSTEAD ? $this->schedules->all() : null;
        $aside = array_map(fn (SurveyedDisplay $one): array => $rules === null ? [] : $this->aside($one, $standing[$one->id] ?? null, $rules, $within), $displays);
        $items = static fn (Design $playlist): int => count(Node::root($playlist->document)->field('items')->items());
        $open = $how === self::BESIDE ? array_map($items, $this->where->openOn($displays, $standing)) : [];
        $at = array_flip(array_map(static fn (SurveyedDisplay $one): string => $one->id, $displays));
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
                $told[] = [
                    'display' => $id,
                    'how' => $how,
                    'offer' => $offer->toArray(),
                    'instead_of' => $aside[$at[$id]],
                    'in_turn_with' => $open[$id] ?? null,
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
            [$left, $back, $changed] = [[], [], []];
            $standing = $this->releases->onEach($displays);
            $own = $this->anyDesigns->schedulesOf(array_map(static fn (SurveyedDisplay $one): string => $one->id, $displays));
            $open = $this->where->openOn($displays, $standing);
            foreach ($displays as $display) {
                $current = $standing[$display->id] ?? throw self::standsNot($filled, $display);
                if ($current->sourceKind === DesignKind::Filled->value && $current->sourceId === $filled->id) {
                    $back[$display->id] = $this->before($filled, $display);
                    continue;
                }
                foreach (array_filter([$own[$display->id] ?? null, $open[$display->id] ?? null]) as $design) {
                    $list = $design->kind === DesignKind::Schedule ? 'bookings' : 'items';
                    $without = self::without($design, $list, $filled);
                    if (count($without) < count(Node::root($design->document)->field($list)->items())) {
                        $changed[$design->id] = $this->own->saved($design, [$list => $without] + $design->document, sprintf('took "%s" off', $filled->name));
                    }
                }
                if (array_intersect_key($changed, $this->releases->contents($current)->parts ?? []) === []) {
                    throw self::standsNot($filled, $display);
                }
                $left[$display->id] = [Playable::kept($current->sourceKind, $current->sourceId, null, $current->name), array_keys($changed)];
            }
            $contents = $this->own->contents($displays, $standing, $left);
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
        $standing = $this->releases->onEach($displays);
        $contents = $this->own->contents($displays, $standing, $how === self::BESIDE
            ? $this->beside($filled, $displays, $standing, $within)
            : $this->instead($filled, $displays, $standing, $within));

        return [
            static fn (SurveyedDisplay $one): Contents => $contents[$one->id],
            array_map(static fn (SurveyedDisplay $one): string => $one->id, $displays),
            self::apart($contents),
        ];
    }

    /**
     * @param list<SurveyedDisplay> $displays
     * @param array<HandedRelease> $standing what stands on them, by display
     * @return array<array{Playable, list<array-key>}> by display: what plays there, and the ids of designs that were saved anew in it
     */
    private function beside(Design $filled, array $displays, array $standing, Node $within): array
    {
        [$plays, $saved] = [[], []];
        $openOn = $this->where->openOn($displays, $standing);
        foreach ($displays as $display) {
            [$open, $current] = [$openOn[$display->id] ?? null, $standing[$display->id] ?? null];
            if ($open === null || $current === null) {
                throw new Problem(409, 'show.nowhere-open', sprintf('No playlist that plays on "%s" is open there. It can take the place of what plays.', $display->display()->name));
            }
            if (!isset($saved[$open->id])) {
                $valid = $within->fields();
                $item = ['layout' => ['ref' => $filled->id]] + ($valid === [] ? [] : ['valid' => $valid]);
                $items = ItemActs::done(self::without($open, 'items', $filled), [], Node::root(['do' => 'add', 'items' => [$item]]));
                $saved[$open->id] = $this->own->saved($open, ['items' => $items] + $open->document, sprintf('added "%s"', $filled->name));
            }
            $plays[$display->id] = [Playable::kept($current->sourceKind, $current->sourceId, null, $current->name), [$open->id]];
        }

        return $plays;
    }

    /**
     * @param list<SurveyedDisplay> $displays
     * @param array<HandedRelease> $standing what stands on them, by display
     * @return array<array{Playable, list<array-key>}> by display: what plays there, and the ids of designs that were saved anew in it
     */
    private function instead(Design $filled, array $displays, array $standing, Node $within): array
    {
        $plays = [];
        $rules = $this->schedules->all();
        $nowMs = 1000 * $this->clock->now()->getTimestamp();
        foreach ($displays as $display) {
            $current = $standing[$display->id] ?? null;
            $ruling = $rules->on($display->id, ...$display->place->outwards());
            if ($within->fields() === [] && ($ruling === [] || ($current !== null && $current->sourceKind !== DesignKind::Schedule->value))) {
                $plays[$display->id] = [Playable::kept('filled', $filled->id, $filled->revision, $filled->name), []];
                continue;
            }
            $booking = BookingWithin::of(WhereShown::booked($filled), $filled->name, Played::of('layout', $filled->id), $within, $this->where->local($display), $nowMs);
            $own = OwnSchedules::of($display, $ruling);
            $own = $own === null
                ? $this->own->made($display, [$booking], $current)
                : $this->own->saved($own, ['bookings' => [...self::without($own, 'bookings', $filled), $booking]] + $own->document, sprintf('booked "%s"', $filled->name));
            $plays[$display->id] = [Playable::kept('schedule', $own->id, null, $own->name), [$own->id]];
        }

        return $plays;
    }

    /**
     * @param Ruling<Design> $rules
     * @return list<string> names of what would play there otherwise
     */
    private function aside(SurveyedDisplay $display, ?HandedRelease $current, Ruling $rules, Node $within): array
    {
        $ruling = $current?->sourceKind === DesignKind::Schedule->value ? $rules->on($display->id, ...$display->place->outwards()) : [];
        $schedule = Schedules::together($ruling);
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

    /** @return list<array<string, mixed>> bookings or items that are not of it */
    private static function without(Design $design, string $list, Design $filled): array
    {
        $left = [];
        foreach (Node::root($design->document)->field($list)->items() as $one) {
            if ($list === 'items' ? !WhereShown::isOf($one, $filled) : $one->field('id')->value !== WhereShown::booked($filled)) {
                $left[] = $one->fields();
            }
        }

        return $left;
    }

    /**
     * @param array<Contents> $contents
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
