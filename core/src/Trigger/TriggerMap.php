<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;

/** What a display shows when somebody comes near, presses, touches, or a value changes, and how it comes to rest again. */
final readonly class TriggerMap
{
    public const FORMAT = 'upper-pane/triggers@1';
    public const NAME = '^[A-Za-z_][A-Za-z0-9_-]*$';
    public const MOST_STATES = 2_000;
    /** A dwell, or an absence. */
    public const LONGEST_WAIT_MS = 86_400_000;
    private const MOST_SIGNALS = 2_000;
    private const MOST_TRANSITIONS = 20_000;

    /** @var array<string, array<string, list<int>>> places of the transitions from a state that name it, in their order, by state and signal */
    private array $ways;

    /** @var array<string, list<int>> places of those from every state, by signal */
    private array $everywhere;

    /**
     * @param array<string, State> $states by id, in their order
     * @param array<string, Signal> $signals by id, in their order
     * @param list<Transition> $transitions
     * @param array<string, mixed> $given as it was read
     */
    private function __construct(
        public string $id,
        public string $name,
        public string $rest,
        public array $states,
        public array $signals,
        public array $transitions,
        private array $given,
    ) {
        [$ways, $everywhere] = [[], []];
        foreach ($transitions as $place => $transition) {
            if (in_array(Transition::EVERY, $transition->from, true)) {
                $everywhere[$transition->on][] = $place;
                continue;
            }
            foreach (array_unique($transition->from) as $state) {
                $ways[$state][$transition->on][] = $place;
            }
        }
        [$this->ways, $this->everywhere] = [$ways, $everywhere];
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'format' => Field::constant(self::FORMAT)->required(),
            'id' => Field::id()->required(),
            'name' => Field::name()->required(),
            'rest' => Field::pattern(self::NAME)->required()->saying('the state to which all comes back'),
            'states' => Field::list(Field::object(State::fields()), self::MOST_STATES, 1)->required(),
            'signals' => Field::list(Kinds::field(), self::MOST_SIGNALS)->required(),
            'transitions' => Field::list(Field::object(Transition::fields()), self::MOST_TRANSITIONS)->required()->saying('in a state a signal takes the first'),
        ]);
    }

    /**
     * @param array<mixed> $document in the format `upper-pane/triggers@1`
     * @throws Refused
     */
    public static function fromArray(array $document): self
    {
        return self::fromNode(Node::root($document));
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        $node->format(self::FORMAT);
        [$stateNames, $signalNames] = [new Names(), new Names()];
        $ids = [];
        foreach ($node->field('states')->items(self::MOST_STATES) as $place => $state) {
            $ids[$place] = $stateNames->take($state->field('id'));
        }
        $rest = $stateNames->known($node->field('rest'), 'state');
        $states = [];
        foreach ($node->field('states')->items(self::MOST_STATES) as $place => $state) {
            $states[$ids[$place]] = State::fromNode($state, $ids[$place], $rest, $stateNames);
        }
        $signals = [];
        foreach ($node->field('signals')->items(self::MOST_SIGNALS) as $signal) {
            $read = Signal::fromNode($signal, $signalNames);
            $signals[$read->id] = $read;
        }
        $transitions = array_map(
            static fn (Node $one): Transition => Transition::fromNode($one, $stateNames, $signalNames),
            $node->field('transitions')->items(self::MOST_TRANSITIONS),
        );

        return new self(
            $node->field('id')->id(),
            $node->field('name')->name(),
            $rest,
            $states,
            $signals,
            $transitions,
            $node->fields(),
        );
    }

    /** @return array<string, mixed> the document as it was read */
    public function toArray(): array
    {
        return $this->given;
    }

    /** @return list<int> places of the transitions that a signal may take in a state, in their order */
    public function ways(string $state, string $signal): array
    {
        [$own, $everywhere] = [$this->ways[$state][$signal] ?? [], $this->everywhere[$signal] ?? []];
        if ($own === [] || $everywhere === []) {
            return [...$own, ...$everywhere];
        }
        $all = [...$own, ...$everywhere];
        sort($all);

        return $all;
    }

    /** @return list<int> of them those that can ever be taken: not those behind one without cool-down */
    public function takeable(string $state, string $signal): array
    {
        $takeable = [];
        foreach ($this->ways($state, $signal) as $place) {
            $takeable[] = $place;
            if ($this->transitions[$place]->cooldownMs === 0) {
                break;
            }
        }

        return $takeable;
    }

    /** @return array<string, true> signals that a state answers */
    public function answered(string $state): array
    {
        return array_fill_keys(array_keys(($this->ways[$state] ?? []) + $this->everywhere), true);
    }

    /** Where a signal leads from a state, cool-downs taken as over; null for nowhere. */
    public function leads(string $state, string $signal): ?string
    {
        $first = $this->ways($state, $signal)[0] ?? null;

        return $first === null ? null : $this->transitions[$first]->to;
    }

    /**
     * The same with states that stand for one length of what they play standing for that long.
     *
     * @param array<string, int> $lengths ms, by state
     */
    public function lasting(array $lengths): self
    {
        $states = $this->states;
        foreach ($lengths as $id => $ms) {
            $states[$id] = $states[$id]->lasting($ms);
        }

        return new self($this->id, $this->name, $this->rest, $states, $this->signals, $this->transitions, $this->given);
    }

    /** @return iterable<array{from: string, on: string, to: ?string}> for each state and each signal, one by one: there may be many */
    public function table(): iterable
    {
        foreach ($this->states as $state) {
            foreach ($this->signals as $signal) {
                yield ['from' => $state->id, 'on' => $signal->id, 'to' => $this->leads($state->id, $signal->id)];
            }
        }
    }
}
