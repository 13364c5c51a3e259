<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

/**
 * A map as W3C SCXML 1.0, with the data model ECMAScript: a general interpreter that is given its signals as events comes to the same states.
 *
 * A state that ends sends itself `lapse.STATE` and cancels it as it is left; when a transition with a cool-down was taken stands in the data model.
 */
final readonly class Scxml
{
    public const NAMESPACE = 'http://www.w3.org/2005/07/scxml';
    public const LAPSE = 'lapse.';

    /** When a transition that was never taken was taken: long before any clock, ms. */
    public const NEVER = '-1e15';

    /** @param TriggerMap $map of which each state that ends says how long it stands (TriggerMap::lasting) */
    public static function of(TriggerMap $map): string
    {
        $document = new \DOMDocument('1.0', 'UTF-8');
        $document->formatOutput = true;
        $root = $document->createElementNS(self::NAMESPACE, 'scxml');
        $document->appendChild($root);
        self::attributes($root, ['version' => '1.0', 'datamodel' => 'ecmascript', 'initial' => $map->rest, 'name' => $map->id]);
        $cooling = array_filter($map->transitions, static fn (Transition $one): bool => $one->cooldownMs > 0);
        if ($cooling !== []) {
            $data = self::add($root, 'datamodel');
            foreach (array_keys($cooling) as $place) {
                self::add($data, 'data', ['id' => self::taken($place), 'expr' => self::NEVER]);
            }
        }
        foreach ($map->states as $state) {
            self::state($map, $state, $root);
        }

        return (string) $document->saveXML();
    }

    private static function state(TriggerMap $map, State $state, \DOMElement $root): void
    {
        $element = self::add($root, 'state', ['id' => $state->id]);
        if ($state->lingerMs !== null) {
            self::linger($state->id, $state->lingerMs, self::add($element, 'onentry'));
            self::add(self::add($element, 'onexit'), 'cancel', ['sendid' => self::LAPSE . $state->id]);
            self::add($element, 'transition', ['event' => self::LAPSE . $state->id, 'target' => $state->then ?? $map->rest]);
        }
        foreach ($map->transitions as $place => $transition) {
            if (!$transition->leadsFrom($state->id)) {
                continue;
            }
            $taken = self::taken($place);
            $goesOn = $transition->goesOnIn($state->id);
            $way = self::add($element, 'transition', ['event' => $transition->on]
                + ($transition->cooldownMs > 0 ? ['cond' => "Date.now() - $taken >= $transition->cooldownMs"] : [])
                + ($goesOn ? [] : ['target' => $transition->to]));
            if ($transition->cooldownMs > 0) {
                self::add($way, 'assign', ['location' => $taken, 'expr' => 'Date.now()']);
            }
            if ($goesOn && $state->lingerMs !== null) {
                self::add($way, 'cancel', ['sendid' => self::LAPSE . $state->id]);
                self::linger($state->id, $state->lingerMs, $way);
            }
        }
    }

    private static function linger(string $state, int $ms, \DOMElement $within): void
    {
        self::add($within, 'send', ['event' => self::LAPSE . $state, 'id' => self::LAPSE . $state, 'delay' => "{$ms}ms"]);
    }

    private static function taken(int $place): string
    {
        return "taken$place";
    }

    /** @param array<string, string> $attributes */
    private static function add(\DOMElement $within, string $name, array $attributes = []): \DOMElement
    {
        $element = new \DOMElement($name, '', self::NAMESPACE);
        $within->appendChild($element);
        self::attributes($element, $attributes);

        return $element;
    }

    /** @param array<string, string> $attributes */
    private static function attributes(\DOMElement $element, array $attributes): void
    {
        foreach ($attributes as $name => $value) {
            $element->setAttribute($name, $value);
        }
    }
}
