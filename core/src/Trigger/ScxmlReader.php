<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;

/**
 * Reads W3C SCXML 1.0 of states beside one another, ways by events and delayed sends back into a map. Signals come back as those of an operator, and nothing is
 * known of what plays. What a map cannot say is refused, with the line and the name of the element.
 *
 * @phpstan-type Way array{from: string, on: string, to: string, cooldown_ms: int, again: bool, taken: ?string}
 */
final class ScxmlReader
{
    private const MOST_BYTES = 5_000_000;

    /** What may stand in a document: by element, what it may hold. Logs say nothing to a map. */
    private const HOLDS = [
        'scxml' => ['datamodel', 'state'],
        'datamodel' => ['data'],
        'state' => ['onentry', 'onexit', 'transition'],
        'onentry' => ['send', 'log'],
        'onexit' => ['cancel', 'log'],
        'transition' => ['assign', 'cancel', 'send', 'log'],
    ];

    /** @var array<string, int> cool-downs that were seen, ms, by what keeps when they began */
    private array $cooling = [];

    /** @var array<string, array{string, string}> of ways with a cool-down their event and where they lead, by what keeps when it began */
    private array $shared = [];

    /** @var array<string, true> what is kept in the data model */
    private array $data = [];

    private function __construct(private readonly \DOMDocument $document)
    {
    }

    /**
     * @return array<string, mixed> a document in the format `upper-pane/triggers@1`
     * @throws DocumentRefused
     */
    public static function read(string $text): array
    {
        if (strlen($text) > self::MOST_BYTES) {
            throw DocumentRefused::because(Reason::DocumentTooLarge, sprintf('The document has more than %d bytes.', self::MOST_BYTES), '');
        }
        $bare = preg_replace_callback('/<!--.*?-->/s', static fn (array $m): string => str_repeat("\n", substr_count($m[0], "\n")), $text) ?? $text;
        if (preg_match('/<!(?:DOCTYPE|ENTITY)/i', $bare, $found, PREG_OFFSET_CAPTURE) === 1) {
            throw self::unsuited(substr_count(substr($bare, 0, $found[0][1]), "\n") + 1, '!DOCTYPE', 'declares a document type or entities, of which a map has none.');
        }
        $before = libxml_use_internal_errors(true);
        try {
            $document = new \DOMDocument();
            $isRead = $text !== '' && $document->loadXML($text, LIBXML_NONET | LIBXML_BIGLINES);
            $errors = libxml_get_errors();
            libxml_clear_errors();
        } finally {
            libxml_use_internal_errors($before);
        }
        if (!$isRead || $document->documentElement === null) {
            $first = $errors[0] ?? null;
            throw DocumentRefused::because(Reason::ScxmlSyntax, $first === null
                ? 'This is no XML.'
                : sprintf('Line %d, column %d: this is no XML: %s.', $first->line, $first->column, rtrim($first->message, ".\n")), '');
        }

        return (new self($document))->map();
    }

    /**
     * @return array<string, mixed>
     * @throws DocumentRefused
     */
    private function map(): array
    {
        $root = $this->document->documentElement ?? throw new \LogicException('It was read.');
        if ($root->localName !== 'scxml' || $root->namespaceURI !== Scxml::NAMESPACE) {
            throw self::wrong($root, sprintf('is not <scxml> of %s.', Scxml::NAMESPACE));
        }
        $elements = ['datamodel' => [], 'state' => []];
        foreach ($this->held($root) as $element) {
            $elements[$element->localName][] = $element;
        }
        foreach ($elements['datamodel'] as $model) {
            array_map($this->data(...), $this->held($model));
        }
        if ($elements['state'] === []) {
            throw self::wrong($root, 'has no <state>.');
        }
        $ids = [];
        foreach ($elements['state'] as $state) {
            $id = $state->getAttribute('id');
            if (preg_match('/' . TriggerMap::NAME . '/D', $id) !== 1) {
                throw self::wrong($state, $id === '' ? 'has no id.' : sprintf('has the id "%s"; one of letters, figures, _ and -, with a letter or _ first, is right.', $id));
            }
            if (isset($ids[$id])) {
                throw self::wrong($state, sprintf('has the id "%s", which another has already.', $id));
            }
            $ids[$id] = true;
        }
        $rest = $root->hasAttribute('initial') ? $root->getAttribute('initial') : (string) array_key_first($ids);
        if (!isset($ids[$rest])) {
            throw self::wrong($root, sprintf('begins with "%s"; one <state> that is there is right.', $rest));
        }
        [$states, $ways] = [[], []];
        foreach ($elements['state'] as $state) {
            [$read, $own] = $this->state($state, $rest, $ids);
            $states[] = $read;
            $ways[] = $own;
        }
        $transitions = $this->together($ways);
        $signals = array_values(array_unique(array_column($transitions, 'on')));
        $name = $root->getAttribute('name');

        return [
            'format' => TriggerMap::FORMAT,
            'id' => preg_match('/^[A-Za-z0-9][A-Za-z0-9._-]{0,79}$/D', $name) === 1 ? $name : 'map',
            'name' => trim($name) === '' ? 'Map' : mb_strimwidth(trim($name), 0, 200, '…'),
            'rest' => $rest,
            'states' => $states,
            'signals' => array_map(static fn (string $id): array => ['id' => $id, 'kind' => 'operator'], $signals),
            'transitions' => $transitions,
        ];
    }

    private function data(\DOMElement $data): void
    {
        $id = $data->getAttribute('id');
        if (preg_match('/^taken\d{1,9}$/D', $id) !== 1 || $data->getAttribute('expr') !== Scxml::NEVER) {
            throw self::wrong($data, 'is data of its own; a map keeps only when a cool-down began.');
        }
        $this->data[$id] = true;
    }

    /**
     * @param array<string, true> $ids of all states
     * @return array{array<string, mixed>, list<Way>} the state, and the ways from it in their order
     * @throws DocumentRefused
     */
    private function state(\DOMElement $state, string $rest, array $ids): array
    {
        $id = $state->getAttribute('id');
        $parts = ['onentry' => [], 'onexit' => [], 'transition' => []];
        foreach ($this->held($state) as $part) {
            array_push($parts[$part->localName], ...($part->localName === 'transition' ? [$part] : $this->held($part)));
        }
        $sends = array_values(array_filter($parts['onentry'], static fn (\DOMElement $one): bool => $one->localName === 'send'));
        $cancelled = array_map(static fn (\DOMElement $one): string => $one->localName === 'cancel' ? $one->getAttribute('sendid') : '', $parts['onexit']);
        if (isset($sends[1])) {
            throw self::wrong($sends[1], sprintf('is the second that "%s" sends; a state ends once.', $id));
        }
        $send = $sends[0] ?? null;
        $lapse = $send === null ? null : $this->lapse($send, $id === $rest, $cancelled);
        $isLapse = fn (\DOMElement $way): bool => $lapse !== null && $this->event($way) === $lapse['event'];
        $lapses = array_values(array_filter($parts['transition'], $isLapse));
        $then = $lapses === [] ? null : $this->then($lapses[0], $ids);
        // What is sent and leads nowhere changes nothing.
        $lapse = $then === null ? null : $lapse;
        $ways = [];
        foreach ($parts['transition'] as $way) {
            if (!in_array($way, $lapses, true)) {
                $ways[] = $this->way($way, $id, $lapse, $ids);
            }
        }
        $read = ['id' => $id];
        if ($id !== $rest) {
            $read += ['plays' => null] + ($lapse === null ? ['linger' => 'endless'] : ['linger_ms' => $lapse['ms']] + ($then === $rest ? [] : ['then' => $then]));
        }

        return [$read, $ways];
    }

    /**
     * When a state ends by itself.
     *
     * @param array<string> $cancelled as the state is left
     * @return array{event: string, id: string, ms: int}
     * @throws DocumentRefused
     */
    private function lapse(\DOMElement $send, bool $isRest, array $cancelled): array
    {
        [$event, $id, $ms] = [$send->getAttribute('event'), $send->getAttribute('id'), self::delayMs($send)];
        foreach (['target', 'targetexpr', 'type', 'typeexpr', 'eventexpr', 'delayexpr', 'idlocation', 'namelist'] as $other) {
            if ($send->hasAttribute($other)) {
                throw self::wrong($send, sprintf('has "%s"; a state sends itself an event after a delay, and no more.', $other));
            }
        }

        return match (true) {
            $event === '' => throw self::wrong($send, 'has no event.'),
            $isRest => throw self::wrong($send, 'stands in the initial state, which never ends by itself.'),
            $id === '' || !in_array($id, $cancelled, true) => throw self::wrong($send, 'is not cancelled as its state is left; <cancel> with its id in <onexit> is right.'),
            default => ['event' => $event, 'id' => $id, 'ms' => $ms],
        };
    }

    private static function delayMs(\DOMElement $send): int
    {
        $delay = $send->getAttribute('delay');
        if (preg_match('/^(\d*\.?\d+)(ms|s)$/D', $delay, $m) !== 1 || ($ms = (int) round((float) $m[1] * ($m[2] === 's' ? 1000 : 1))) < 1) {
            throw self::wrong($send, $delay === '' ? 'has no delay.' : sprintf('has the delay "%s"; one such as 5000ms or 5s is right.', $delay));
        }

        return $ms;
    }

    private function event(\DOMElement $way): string
    {
        $event = trim($way->getAttribute('event'));

        return match (true) {
            $event === '' => throw self::wrong($way, 'has no event.'),
            preg_match('/\s/', $event) === 1 => throw self::wrong($way, sprintf('has several events, "%s"; one is right.', $event)),
            str_contains($event, '*') => throw self::wrong($way, sprintf('has the event "%s", which is every one; a name is right.', $event)),
            default => $event,
        };
    }

    /** @param array<string, true> $ids */
    private function target(\DOMElement $way, array $ids): string
    {
        $target = trim($way->getAttribute('target'));
        if (!isset($ids[$target])) {
            throw self::wrong($way, $target === '' ? 'has no target.' : sprintf('leads to "%s", and there is no <state> of that id.', $target));
        }

        return $target;
    }

    /**
     * Where a state leads that ends by itself.
     *
     * @param array<string, true> $ids
     */
    private function then(\DOMElement $way, array $ids): string
    {
        if ($way->hasAttribute('cond')) {
            throw self::wrong($way, 'has a condition; where a state ends by itself it has none.');
        }
        foreach ($this->held($way) as $act) {
            $act->localName === 'log' ?: throw self::wrong($act, 'does something of its own as a way is taken, which a map cannot say.');
        }

        return $this->target($way, $ids);
    }

    /**
     * @param array{event: string, id: string, ms: int}|null $lapse of the state
     * @param array<string, true> $ids
     * @return Way
     */
    private function way(\DOMElement $way, string $state, ?array $lapse, array $ids): array
    {
        $event = $this->event($way);
        if (preg_match('/' . TriggerMap::NAME . '/D', $event) !== 1 || in_array($event, Signal::OWN, true)) {
            throw self::wrong($way, sprintf('has the event "%s", which no signal can be called.', $event));
        }
        [$taken, $cooldown] = $this->cooldown($way);
        $isAgain = $way->hasAttribute('target');
        $to = $isAgain ? $this->target($way, $ids) : $state;
        if ($taken !== null && ($this->shared[$taken] ??= [$event, $to]) !== [$event, $to]) {
            throw self::wrong($way, sprintf('shares "%s" with another way; each has a cool-down of its own.', $taken));
        }
        $acts = array_values(array_filter($this->held($way), static fn (\DOMElement $one): bool => $one->localName !== 'log'));
        $assign = $taken === null ? null : array_shift($acts);
        if ($taken !== null && ($assign?->localName !== 'assign' || $assign->getAttribute('location') !== $taken || $assign->getAttribute('expr') !== 'Date.now()')) {
            throw self::wrong($assign ?? $way, sprintf('does not note in "%s" when it was taken.', $taken));
        }
        $goesOn = false;
        if (!$isAgain && $lapse !== null && $acts !== []) {
            [$cancel, $send] = [$acts[0], $acts[1] ?? null];
            $goesOn = count($acts) === 2 && $cancel->localName === 'cancel' && $cancel->getAttribute('sendid') === $lapse['id'] && $send?->localName === 'send'
                && $send->getAttribute('event') === $lapse['event'] && $send->getAttribute('id') === $lapse['id'] && self::delayMs($send) === $lapse['ms'];
            $acts = $goesOn ? [] : $acts;
        }
        if ($acts !== []) {
            throw self::wrong($acts[0], 'does something of its own as a way is taken, which a map cannot say.');
        }
        if (!$isAgain && $lapse !== null && !$goesOn) {
            throw self::wrong($way, 'has no target, and does not begin the delayed event of its state again.');
        }

        return ['from' => $state, 'on' => $event, 'to' => $to, 'cooldown_ms' => $cooldown, 'again' => $isAgain, 'taken' => $taken];
    }

    /** @return array{?string, int} what keeps when it was taken, and for how long it is not taken again, ms */
    private function cooldown(\DOMElement $way): array
    {
        if (!$way->hasAttribute('cond')) {
            return [null, 0];
        }
        $cond = $way->getAttribute('cond');
        if (preg_match('/^Date\.now\(\) - (taken\d{1,9}) >= (\d{1,12})$/D', $cond, $m) !== 1 || !isset($this->data[$m[1]])) {
            throw self::wrong($way, sprintf('has the condition "%s"; only that of a cool-down can be said.', mb_strimwidth($cond, 0, 80, '…')));
        }
        $known = $this->cooling[$m[1]] ??= (int) $m[2];
        if ($known !== (int) $m[2]) {
            throw self::wrong($way, sprintf('cools down for %s ms, and for %d elsewhere.', $m[2], $known));
        }

        return [$m[1], $known];
    }

    /**
     * One transition for each way; those that share a cool-down are one from several states, in an order that suits all of these.
     *
     * @param list<list<Way>> $ways of each state, in their order
     * @return list<array{from: list<string>, on: string, to: string, cooldown_ms?: int, again?: false}>
     */
    private function together(array $ways): array
    {
        $numbers = [];
        foreach (array_keys($this->data) as $taken) {
            $numbers[$taken] = (int) substr($taken, strlen('taken'));
        }
        $together = [];
        foreach ($ways as $own) {
            $at = [-1, 0];
            foreach ($own as $way) {
                // Those with a cool-down say at which place they stood; the others stand behind what stands before them.
                $taken = $way['taken'];
                $before = $at[0];
                $at = $taken === null ? [$at[0], $at[1] + 1] : [$numbers[$taken], 0];
                if ($at[0] < $before) {
                    $says = sprintf('The ways from "%s" do not stand in the order of their cool-downs: "%s" stands behind a later one.', $way['from'], $taken ?? '');
                    throw DocumentRefused::because(Reason::ScxmlUnsuited, $says, '');
                }
                $key = $taken ?? 'way ' . count($together);
                $known = $together[$key] ?? ['at' => $at, 'from' => [], 'on' => $way['on'], 'to' => $way['to'], 'cooldown_ms' => $way['cooldown_ms'], 'again' => true];
                $together[$key] = ['from' => [...$known['from'], $way['from']], 'again' => $known['again'] && $way['again']] + $known;
            }
        }
        usort($together, static fn (array $a, array $b): int => $a['at'] <=> $b['at']);

        return array_map(static fn (array $one): array => ['from' => array_values(array_unique($one['from'])), 'on' => $one['on'], 'to' => $one['to']]
            + ($one['cooldown_ms'] > 0 ? ['cooldown_ms' => $one['cooldown_ms']] : []) + ($one['again'] ? [] : ['again' => false]), $together);
    }

    /**
     * @return list<\DOMElement> what stands in an element
     * @throws DocumentRefused where it may not stand there
     */
    private function held(\DOMElement $element): array
    {
        $held = [];
        foreach ($element->childNodes as $child) {
            if (!$child instanceof \DOMElement) {
                if ($child instanceof \DOMText && trim($child->data) !== '') {
                    throw self::wrong($element, 'holds text.');
                }
                continue;
            }
            $may = self::HOLDS[$element->localName] ?? [];
            if ($child->namespaceURI !== Scxml::NAMESPACE || !in_array($child->localName, $may, true)) {
                throw self::wrong($child, match (true) {
                    $child->localName === 'state' && $element->localName === 'state' => 'stands in another state; states of a map stand beside one another.',
                    default => sprintf('cannot be said by a map; in <%s> it has %s.', $element->localName, $may === [] ? 'nothing' : '<' . implode('>, <', $may) . '>'),
                });
            }
            $held[] = $child;
        }

        return $held;
    }

    private static function wrong(\DOMElement $element, string $says): DocumentRefused
    {
        return self::unsuited($element->getLineNo(), (string) $element->localName, $says);
    }

    private static function unsuited(int $line, string $element, string $says): DocumentRefused
    {
        return DocumentRefused::because(Reason::ScxmlUnsuited, "Line $line: <$element> $says", '');
    }
}
