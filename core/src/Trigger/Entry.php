<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Sensor;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Trigger\Reading\Held;
use UpperPane\Core\Trigger\Reading\KeyPressed;
use UpperPane\Core\Trigger\Reading\Pressed;
use UpperPane\Core\Trigger\Reading\Reading;
use UpperPane\Core\Trigger\Reading\Told;
use UpperPane\Core\Trigger\Reading\Touched;
use UpperPane\Core\Units\Instant;

/** One thing that happened, as it is written down: a signal by its name, or what a sensor, the glass, a key or a source said. */
final readonly class Entry
{
    /** What an entry may be of, by the field that tells it. */
    private const KINDS = ['signal', 'sensor', 'touch', 'key', 'source'];

    /**
     * @param int $atMs Unix ms
     * @param ?string $signal that comes by its name
     * @param ?Sensor $sensor that read a distance; what is held follows from what was held before
     * @param ?float $mm that it read; null for nobody
     * @param ?Reading $reading that is heard as it is; null where nothing is
     * @param ?array<string, mixed> $row that came with it
     */
    private function __construct(
        public int $atMs,
        public ?string $signal,
        private ?Sensor $sensor,
        private ?float $mm,
        private ?Reading $reading,
        public Rank $rank,
        public ?array $row,
    ) {
    }

    /**
     * @param ?Display $display whose sensors speak; null where none can
     * @throws Refused
     */
    public static function fromNode(Node $node, TriggerMap $map, ?Display $display): self
    {
        $given = array_values(array_filter(self::KINDS, $node->has(...)));
        if (count($given) !== 1) {
            throw $node->refused(Reason::ValueRange, sprintf('is of %s; one of %s is right.', $given === [] ? 'nothing' : implode(' and ', $given), implode(', ', self::KINDS)));
        }
        $fields = ['sensor' => ['sensor', 'mm', 'band', 'button'], 'source' => ['source', 'field', 'value']][$given[0]] ?? $given;
        $node->object('at', 'row', ...$fields);
        $at = $node->field('at');
        [$ms, $row] = [Instant::parse($at->text(1, 40), $at->path)->ms, $node->optional('row')?->fields()];
        $of = static fn (Reading $reading, Rank $rank): self => new self($ms, null, null, null, $reading, $rank, $row);
        if ($given[0] === 'signal') {
            $name = $node->field('signal')->text(1, 200);
            $signal = $map->signals[$name] ?? throw $node->field('signal')->refused(Reason::RefUnknown, sprintf('is "%s", and the map has no signal of that name.', mb_strimwidth($name, 0, 80, '…')));

            return new self($ms, $name, null, null, null, $signal->kind::rank(), $row);
        }
        if ($given[0] === 'touch') {
            $touch = $node->field('touch')->object('x', 'y');

            return $of(new Touched($touch->field('x')->number(unit: 'px'), $touch->field('y')->number(unit: 'px')), Rank::Others);
        }
        if ($given[0] === 'key') {
            return $of(new KeyPressed(self::keyNamed($node->field('key')->text(1, 80), $display)), Rank::Others);
        }
        if ($given[0] === 'source') {
            $value = $node->field('value');

            return $value->value === null
                ? new self($ms, null, null, null, null, Rank::Value, $row)
                : $of(new Told($node->field('source')->id(), $node->optional('field')?->text(1, 80), $value->number()), Rank::Value);
        }

        return self::ofSensor($node, $display, $ms, $row);
    }

    /**
     * @param ?array<string, mixed> $row
     * @throws Refused
     */
    private static function ofSensor(Node $node, ?Display $display, int $ms, ?array $row): self
    {
        $field = $node->field('sensor');
        $sensor = $display?->sensor($field->id()) ?? throw $field->refused(Reason::RefUnknown, $display === null
            ? 'is of a sensor, and no display is given that has one.'
            : sprintf('is "%s", a sensor that "%s" lacks; it has %s.', $field->id(), $display->id, self::ids($display)));
        $said = array_values(array_filter(['mm', 'band', 'button'], $node->has(...)));
        if (count($said) !== 1) {
            throw $node->refused(Reason::ValueRange, sprintf('says %s; one of mm, band and button is right.', $said === [] ? 'nothing' : implode(' and ', $said)));
        }
        $what = $node->field($said[0]);
        $wanted = $said[0] === 'button' ? Sensor::BUTTONS : Sensor::PRESENCE;
        if ($sensor->kind !== $wanted) {
            throw $what->refused(Reason::ValueRange, sprintf('is said by "%s", a sensor of kind %s; one of kind %s says it.', $sensor->id, $sensor->kind, $wanted));
        }
        if ($said[0] === 'button') {
            return new self($ms, null, null, null, new Pressed($sensor->id, $sensor->named($what->text(1, 80))), Rank::Others, $row);
        }
        if ($said[0] === 'mm') {
            return new self($ms, null, $sensor, $what->value === null ? null : $what->number(0.0, unit: 'mm'), null, Rank::Presence, $row);
        }
        $band = $sensor->bandSent($what->int(0, 1_000))
            ?? throw $what->refused(Reason::ValueRange, sprintf('is %d; "%s" has the bands 1 to %d, and 0 for nobody.', $what->int(), $sensor->id, count($sensor->bandsMm)));

        return new self($ms, null, null, null, new Held($sensor->id, $band), Rank::Presence, $row);
    }

    /** The key that is meant by what the keyboard of a display sends. */
    private static function keyNamed(string $key, ?Display $display): string
    {
        foreach ($display->sensors ?? [] as $sensor) {
            $key = $sensor->kind === Sensor::KEYS ? $sensor->named($key) : $key;
        }

        return $key;
    }

    /** The figure that it tells; null where it tells none. */
    public function value(): ?float
    {
        return $this->reading instanceof Told ? $this->reading->value : null;
    }

    private static function ids(Display $display): string
    {
        return implode(', ', array_map(static fn (Sensor $one): string => "\"$one->id\"", $display->sensors)) ?: 'none';
    }

    /**
     * What is heard of it; null where nothing is.
     *
     * @param array<string, int> $held the band that is held, by sensor
     */
    public function reading(array $held): ?Reading
    {
        return $this->sensor === null
            ? $this->reading
            : new Held($this->sensor->id, $this->mm === null ? 0 : $this->sensor->holds($held[$this->sensor->id] ?? 0, $this->mm));
    }
}
