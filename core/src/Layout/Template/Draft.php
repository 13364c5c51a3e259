<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Told\Speaking;

/** A template that is being filled in. */
final class Draft
{
    /** @var array<string, array<string, mixed>> elements as they stand by now, by id */
    private array $elements;

    /** @var array<string, array<string, int|float|Day|null>> what their messages tell, by element and argument */
    private array $told = [];

    /** @var array<string, array<string, int>> */
    private array $decimals = [];

    public function __construct(private readonly Layout $template)
    {
        $this->elements = array_combine($template->ids(), array_map(static fn (WrittenElement $element): array => $element->toArray(), $template->elements));
    }

    /** @param array<string, mixed> $fields null takes a field away */
    public function change(string $element, array $fields): void
    {
        $this->elements[$element] = array_filter(array_replace($this->elements[$element], $fields), static fn (mixed $value): bool => $value !== null);
    }

    public function set(ChoiceSet $set): void
    {
        $this->elements[$set->element] = self::changedAt($this->elements[$set->element], $set->way, $set->value);
    }

    /** What a message tells for one of its arguments; null for its fallback. */
    public function tell(string $element, string $argument, int|float|Day|null $value, ?int $decimals): void
    {
        $this->told[$element][$argument] = $value;
        if ($decimals !== null) {
            $this->decimals[$element][$argument] = $decimals;
        }
    }

    /** @param list<array<string, mixed>> $items in the place of those of its list */
    public function play(string $element, array $items): void
    {
        $list = $this->elements[$element]['playlist'] ?? null;
        $this->elements[$element]['playlist'] = ['items' => $items] + (is_array($list) && !isset($list['ref']) ? $list : []);
    }

    /**
     * That an element can still be read.
     *
     * @param string $path JSON Pointer to what was put there
     * @throws Refused
     */
    public function check(string $element, string $path): void
    {
        try {
            Kinds::read(Node::root($this->elements[$element]));
        } catch (Refused $e) {
            throw $e->in('', $path);
        }
    }

    /**
     * The layout: what no slot opens is as it was, and nothing is open any more.
     *
     * @throws Refused
     */
    public function layout(string $id, string $name, Speaking $speaking): Layout
    {
        $document = array_diff_key($this->template->toArray(), ['slots' => 1]);

        return Layout::fromArray(array_replace($document, [
            'id' => $id,
            'name' => $name,
            'elements' => array_map(fn (string $element): array => $this->toldInPart($element, $speaking), array_map(strval(...), array_keys($this->elements))),
        ]));
    }

    /**
     * @param array<array-key, mixed> $fields
     * @param non-empty-list<string> $way to a field of an object in an object
     * @return array<string, mixed>
     */
    public static function changedAt(array $fields, array $way, mixed $value): array
    {
        $name = $way[0];
        $inner = $fields[$name] ?? null;
        $rest = array_slice($way, 1);
        /** @var array<string, mixed> $changed an object has names */
        $changed = array_replace($fields, [$name => $rest === [] ? $value : self::changedAt(is_array($inner) ? $inner : [], $rest, $value)]);

        return $changed;
    }

    /**
     * An element whose message tells what was put there; what else it tells comes later.
     *
     * @return array<string, mixed>
     * @throws Refused
     */
    private function toldInPart(string $id, Speaking $speaking): array
    {
        $element = $this->elements[$id];
        if (!isset($this->told[$id]) || ($element['message'] ?? false) !== true) {
            return $element;
        }
        $rows = is_array($element['rows'] ?? null) ? $element['rows'] : null;
        $stated = is_string($rows['language'] ?? null) ? $rows['language'] : null;
        $tell = fn (mixed $text, ?string $language): Message => Message::parse(is_string($text) ? $text : '', "/elements/$id/text")
            ->toldInPart($this->told[$id], new Formats($speaking->tellsIn($language, $stated), 'UTC'), $this->decimals[$id] ?? []);
        $messages = ['text' => $tell($element['text'] ?? null, null)];
        $texts = is_array($element['texts'] ?? null) ? $element['texts'] : [];
        foreach ($texts as $language => $text) {
            $messages["texts/$language"] = $tell($text, (string) $language);
        }
        $isTold = $rows === null && array_merge(...array_map(static fn (Message $one): array => $one->names(), array_values($messages))) === [];
        $said = static fn (string $name): string => $isTold ? $messages[$name]->tell([], new Formats('en', 'UTC'))->text : $messages[$name]->pattern;
        foreach (array_keys($texts) as $language) {
            $texts[$language] = $said("texts/$language");
        }
        $changed = array_replace($element, ['text' => $said('text')], $texts === [] ? [] : ['texts' => $texts]);

        return $isTold ? array_diff_key($changed, ['message' => 1]) : $changed;
    }
}
