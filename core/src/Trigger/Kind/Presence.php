<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Kind;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Sensor;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Trigger\Kind;
use UpperPane\Core\Trigger\Memory;
use UpperPane\Core\Trigger\Rank;
use UpperPane\Core\Trigger\Reading\Held;
use UpperPane\Core\Trigger\Reading\Reading;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Core\Units\WallClock;

/** Somebody comes into some bands of distance and stays within them for the dwell. */
final readonly class Presence implements Kind
{
    use Senses;

    private const MOST_BANDS = 32;

    /** The bands as bits: what is read a thousand times a second is looked up at once. */
    private int $mask;

    /** @param non-empty-list<int> $bands 1 for the nearest */
    private function __construct(public string $sensor, public array $bands, public int $dwellMs)
    {
        $this->mask = array_sum(array_map(static fn (int $band): int => 1 << $band, array_unique($bands)));
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'sensor' => Field::id()->required(),
            'bands' => Field::list(Field::int(1, self::MOST_BANDS), self::MOST_BANDS, 1)->required()->saying('1 for the nearest'),
            'dwell_ms' => Field::int(0, TriggerMap::LONGEST_WAIT_MS),
        ]);
    }

    public static function fromNode(Node $node): self
    {
        $bands = array_map(static fn (Node $one): int => $one->int(1, self::MOST_BANDS), $node->field('bands')->items(self::MOST_BANDS));
        if ($bands === []) {
            throw $node->field('bands')->refused(Reason::ValueRange, 'names no band; 1 is the nearest.');
        }

        return new self($node->field('sensor')->id(), $bands, $node->optional('dwell_ms')?->int(0, TriggerMap::LONGEST_WAIT_MS, 'ms') ?? 0);
    }

    public static function rank(): Rank
    {
        return Rank::Presence;
    }

    public function begun(int $ms, WallClock $clock): Memory
    {
        return new Memory();
    }

    public function hears(Reading $reading, Memory $memory, int $ms): ?array
    {
        if (!$reading instanceof Held || $reading->sensor !== $this->sensor) {
            return null;
        }
        $isWithin = ($this->mask >> $reading->band & 1) === 1;

        return match (true) {
            $isWithin === $memory->is => null,
            !$isWithin => [new Memory(), false],
            $this->dwellMs === 0 => [new Memory(true), true],
            default => [new Memory(true, $ms + $this->dwellMs), false],
        };
    }

    public function waited(Memory $memory, int $ms, WallClock $clock): Memory
    {
        return new Memory(true);
    }

    public function compiled(\Closure $dueMs): array
    {
        return ['sensor' => $this->sensor, 'bands' => $this->bands, 'dwell_ms' => $this->dwellMs];
    }

    public function comesWith(Kind $other): bool
    {
        return $other instanceof self && $other->sensor === $this->sensor && $other->dwellMs === $this->dwellMs && array_intersect($other->bands, $this->bands) !== [];
    }

    public function lacks(Display $display): ?string
    {
        return self::sensorLacking($display, $this->sensor, Sensor::PRESENCE);
    }

    public function raisedBy(): null
    {
        return null;
    }
}
