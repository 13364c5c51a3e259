<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\WallClock;

/** When an overlay is in force: always, at times that are booked, or after every so many items; the last two may hold together. */
final readonly class Times
{
    public const ALWAYS = 'always';

    /** @param list<Occurring> $bookings */
    private function __construct(public bool $isAlways, public array $bookings, public ?Moment $until, public ?After $after)
    {
    }

    public static function always(): self
    {
        return new self(true, [], null, null);
    }

    public static function field(): Field
    {
        return Field::either(Field::constant(self::ALWAYS), Field::object(self::fields()));
    }

    private static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'bookings' => Field::list(Field::object(Occurring::fields()), null, 1),
            'until' => Moment::field()->saying('nothing of it is shown from then on'),
            'after' => Field::object(After::fields()),
            'lasts_ms' => Field::int(1, 86_400_000)->saying('after every so many items'),
        ]);
    }

    /**
     * @param bool $mayFollow whether it may be shown after every so many items
     * @throws Refused
     */
    public static function fromNode(Node $node, bool $mayFollow): self
    {
        if (!is_array($node->value)) {
            $node->oneOf(self::ALWAYS);

            return self::always();
        }
        $node->object(...self::fields()->names());
        [$bookings, $after] = [$node->optional('bookings'), $node->optional('after')];
        if ($bookings === null && $after === null) {
            throw $node->refused(Reason::FieldMissing, 'says neither "bookings" nor "after"; "always" is right for what has no end.');
        }
        if ($after !== null && !$mayFollow) {
            throw $after->refused(Reason::FieldUnknown, 'is for windows and takeovers alone; "always" or "bookings" are right here.');
        }
        if ($after === null && $node->has('lasts_ms')) {
            throw $node->field('lasts_ms')->refused(Reason::FieldUnknown, 'stands without "after".');
        }
        $occurring = array_map(Occurring::fromNode(...), $bookings?->items() ?? []);
        if ($bookings !== null && $occurring === []) {
            throw $bookings->refused(Reason::ValueRange, 'is empty; at least one is right.');
        }

        return new self(
            false,
            $occurring,
            ($until = $node->optional('until')) ? Moment::fromNode($until) : null,
            $after === null ? null : After::fromNodes($after, $node->field('lasts_ms')),
        );
    }

    /**
     * When it may be in force in [from, to), without hole or overlap; where occurrences overlap the latest counts. What comes after items is in force for
     * a part of that.
     *
     * @return list<Spell> clipped to the span
     * @throws DocumentRefused where there are too many to be looked at
     */
    public function spells(WallClock $clock, int $fromMs, int $toMs): array
    {
        $toMs = $this->until === null ? $toMs : min($toMs, $this->until->ms($clock));
        if ($toMs <= $fromMs) {
            return [];
        }
        if ($this->bookings === []) {
            return [new Spell($fromMs, $toMs, 0)];
        }
        $all = array_merge(...array_map(static fn (Occurring $one): array => $one->spells($clock, $fromMs, $toMs), $this->bookings));
        Budget::ofOccurrences(count($all), '/when/bookings');

        return self::swept($all, $fromMs, $toMs);
    }

    /** Whether anything of it lies ahead of an instant, however far; what is under way counts. */
    public function liesAhead(WallClock $clock, int $ms): bool
    {
        $untilMs = $this->until === null ? PHP_INT_MAX : $this->until->ms($clock);
        if ($this->bookings === []) {
            return $ms < $untilMs;
        }
        foreach ($this->bookings as $one) {
            if ($one->nextMs($clock, $ms) < $untilMs) {
                return true;
            }
        }

        return false;
    }

    /** Whether it goes on for ever unless somebody ends it. */
    public function hasNoEnd(): bool
    {
        $endless = array_filter($this->bookings, static fn (Occurring $one): bool => $one->isEndless());

        return $this->isAlways || ($this->until === null && ($this->bookings === [] || $endless !== []));
    }

    /** What it counts from at an instant; null where it is not in force, also not after items. */
    public function at(WallClock $clock, int $ms): ?int
    {
        return ($this->spells($clock, $ms, $ms + 1)[0] ?? null)?->anchorMs;
    }

    /**
     * @param list<Spell> $all
     * @return list<Spell>
     */
    private static function swept(array $all, int $fromMs, int $toMs): array
    {
        usort($all, static fn (Spell $a, Spell $b): int => [$a->fromMs, $a->toMs] <=> [$b->fromMs, $b->toMs]);
        $swept = [];
        /** @var list<Spell> $open those that have begun, the latest last */
        $open = [];
        $at = $fromMs;
        $put = static function (Spell $spell, int $from, int $to) use (&$swept): void {
            $last = $swept === [] ? null : $swept[count($swept) - 1];
            if ($last !== null && $last->toMs === $from && $last->anchorMs === $spell->anchorMs) {
                $swept[count($swept) - 1] = new Spell($last->fromMs, $to, $last->anchorMs);
            } elseif ($to > $from) {
                $swept[] = new Spell($from, $to, $spell->anchorMs);
            }
        };
        $until = static function (int $to) use (&$open, &$at, $put): void {
            while ($open !== [] && $at < $to) {
                $top = $open[count($open) - 1];
                if ($top->toMs <= $at) {
                    array_pop($open);
                    continue;
                }
                $put($top, $at, min($to, $top->toMs));
                $at = min($to, $top->toMs);
            }
            $at = max($at, $to);
        };
        foreach ($all as $spell) {
            $until(min($toMs, max($fromMs, $spell->fromMs)));
            $open[] = $spell;
        }
        $until($toMs);

        return $swept;
    }
}
