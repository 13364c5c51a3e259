<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Kind;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Sensor;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Trigger\Kind;
use UpperPane\Core\Trigger\Memory;
use UpperPane\Core\Trigger\Rank;
use UpperPane\Core\Trigger\Reading\Held;
use UpperPane\Core\Trigger\Reading\Reading;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Core\Units\WallClock;

/** Nobody has been before a sensor for so long; at the beginning nobody is there. */
final readonly class Absence implements Kind
{
    use Senses;

    private function __construct(public string $sensor, public int $afterMs)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of(['sensor' => Field::id()->required(), 'after_ms' => Field::int(0, TriggerMap::LONGEST_WAIT_MS)->required()]);
    }

    public static function fromNode(Node $node): self
    {
        return new self($node->field('sensor')->id(), $node->field('after_ms')->int(0, TriggerMap::LONGEST_WAIT_MS, 'ms'));
    }

    public static function rank(): Rank
    {
        return Rank::Presence;
    }

    public function begun(int $ms, WallClock $clock): Memory
    {
        return new Memory(true, $ms + $this->afterMs);
    }

    public function hears(Reading $reading, Memory $memory, int $ms): ?array
    {
        if (!$reading instanceof Held || $reading->sensor !== $this->sensor) {
            return null;
        }
        $isGone = $reading->band === 0;

        return match (true) {
            $isGone === $memory->is => null,
            !$isGone => [new Memory(), false],
            $this->afterMs === 0 => [new Memory(true), true],
            default => [new Memory(true, $ms + $this->afterMs), false],
        };
    }

    public function waited(Memory $memory, int $ms, WallClock $clock): Memory
    {
        return new Memory(true);
    }

    public function compiled(\Closure $dueMs): array
    {
        return ['sensor' => $this->sensor, 'after_ms' => $this->afterMs];
    }

    public function comesWith(Kind $other): bool
    {
        return false;
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
