<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Kind;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Recurrence\Recurrence;
use UpperPane\Core\Recurrence\Rule;
use UpperPane\Core\Trigger\Kind;
use UpperPane\Core\Trigger\Memory;
use UpperPane\Core\Trigger\Rank;
use UpperPane\Core\Trigger\Reading\Reading;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** The clock on the wall shows a time, once or again and again (RFC 5545). */
final readonly class Time implements Kind
{
    /**
     * @param list<LocalTime> $dates RDATE
     * @param list<LocalTime> $without EXDATE
     * @param list<int> $withoutDays whole days left out, by day number
     */
    private function __construct(private LocalTime $start, private ?Rule $rule, private array $dates, private array $without, private array $withoutDays)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'start' => Field::pattern(LocalTime::PATTERN)->required()->saying('on the clock of the display'),
            'rrule' => Field::text(1, 16_384)->saying('RFC 5545'),
            'exdates' => Field::list(Field::text()),
            'rdates' => Field::list(Field::pattern(LocalTime::PATTERN)),
        ]);
    }

    public static function fromNode(Node $node): self
    {
        $without = $node->optional('exdates');
        [$times, $days] = LocalTime::timesAndDays(array_map(static fn (Node $one): string => $one->text(), $without?->items() ?? []), $without->path ?? '');

        return new self(
            LocalTime::fromNode($node->field('start')),
            ($rule = $node->optional('rrule')) ? Rule::parse($rule->text(1, PHP_INT_MAX), $rule->path) : null,
            array_map(LocalTime::fromNode(...), $node->optional('rdates')?->items() ?? []),
            $times,
            $days,
        );
    }

    public static function rank(): Rank
    {
        return Rank::Time;
    }

    public function begun(int $ms, WallClock $clock): Memory
    {
        return $this->next((int) ceil($ms / 1000), $clock);
    }

    public function hears(Reading $reading, Memory $memory, int $ms): null
    {
        return null;
    }

    public function waited(Memory $memory, int $ms, WallClock $clock): Memory
    {
        return $this->next(intdiv($ms, 1000) + 1, $clock);
    }

    /** @param int $from Unix s */
    private function next(int $from, WallClock $clock): Memory
    {
        $next = Recurrence::of($this->start, $this->rule, $clock, $this->dates, $this->without, $this->withoutDays)->next($from);

        return new Memory(false, $next === null ? null : 1000 * $next);
    }

    public function compiled(\Closure $dueMs): array
    {
        return ['at_ms' => $dueMs()];
    }

    public function comesWith(Kind $other): bool
    {
        return false;
    }

    public function lacks(Display $display): null
    {
        return null;
    }

    public function raisedBy(): array
    {
        return [];
    }
}
