<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Layout\Kind\HasRoom;
use UpperPane\Core\Layout\Told\Languages;
use UpperPane\Core\Layout\Told\SaysText;
use UpperPane\Core\Units\Instant;

/** Words: one text, or one for each of some languages. */
final readonly class TextSlot implements Slot
{
    use OpensElement;

    public const KIND = 'text';
    public const LONGEST = 20_000;
    /** of a text that is as long as can be */
    private const MOST_WORDS = 300;

    /** @param list<string> $languages in the order in which they are shown; none where there is one text for all */
    private function __construct(private SlotHead $head, private string $element, public array $languages, private ?TextValue $default)
    {
    }

    public static function fields(): Fields
    {
        $text = Field::text(0, self::LONGEST, Role::Words);

        return Fields::of([
            'element' => Field::id()->required(),
            'languages' => Field::list(Field::pattern(Field::LANGUAGE), Languages::MOST, 1)->saying('in which there may be a text each, in the order in which they are shown'),
            'default' => Field::either($text, Field::map($text, Languages::MOST, Field::LANGUAGE)),
        ]);
    }

    public static function fromNode(Node $node): static
    {
        $head = SlotHead::fromNode($node, self::fields());
        $languages = [];
        $given = $node->optional('languages');
        foreach ($given?->items(Languages::MOST) ?? [] as $one) {
            Languages::check($one->text(1, 80), $one);
            if (in_array($one->text(1, 80), $languages, true)) {
                throw $one->refused(Reason::IdTwice, sprintf('is "%s" for the second time.', $one->text(1, 80)));
            }
            $languages[] = $one->text(1, 80);
        }
        if ($given !== null && $languages === []) {
            throw $given->refused(Reason::ValueRange, 'is empty; without it there is one text for all.');
        }
        $slot = new self($head, $node->field('element')->id(), $languages, null);

        return ($default = $node->optional('default')) === null ? $slot : new self($head, $slot->element, $languages, $slot->read($default));
    }

    public function check(array $elements, Node $node): void
    {
        self::opened($elements, $node->field('element'), SaysText::class, 'one that says a text');
    }

    public function read(Node $node): TextValue
    {
        if (!is_array($node->value)) {
            return TextValue::ofOne($this, $this->element, self::words($node));
        }
        if ($this->languages === []) {
            throw $node->refused(Reason::TypeWrong, 'is a text for each language; the slot has one for all.');
        }
        $texts = [];
        foreach ($node->members(Languages::MOST) as $language => $one) {
            if (!in_array((string) $language, $this->languages, true)) {
                throw $one->refused(Reason::FieldUnknown, sprintf('is a text in "%s"; the slot has %s.', mb_strimwidth((string) $language, 0, 40, '…'), implode(', ', $this->languages)));
            }
            $texts[(string) $language] = self::words($one);
        }

        return TextValue::ofLanguages($this, $this->element, $texts);
    }

    public function ofField(string|int|float|bool|Instant|Day|null $value, Formats $formats): ?string
    {
        return $formats->told($value, null, '');
    }

    /** @return string|array<string, string>|null */
    public function sample(Sample $sample, FilledView $view): string|array|null
    {
        $element = $view->element($this->element);
        if ($sample === Sample::Nothing || $element === null) {
            return null;
        }
        $faces = $view->surroundings->faces;
        $given = $element->toArray();
        // A message says something else in place of its pattern.
        ['text' => $text, 'texts' => $said] = ($given['message'] ?? false) === true ? ['text' => '', 'texts' => []] : $given + ['text' => '', 'texts' => []];
        $texts = [];
        foreach ($this->languages === [] ? [''] : $this->languages as $language) {
            $one = is_array($said) && is_string($said[$language] ?? null) ? $said[$language] : (is_string($text) ? $text : '');
            $words = preg_split('/\s+/u', $one, -1, PREG_SPLIT_NO_EMPTY) ?: [];
            if ($words === [] && $sample === Sample::Least && !$this->head->isRequired) {
                // What says nothing may go on saying nothing.
                return null;
            }
            $words = $words === [] ? [$this->head->name] : $words;
            $most = $element instanceof HasRoom && $faces !== null
                ? self::asManyAsFit($words, static fn (string $text): int => $element->wordsTooMany($text, $faces))
                : implode(' ', $words);
            $texts[$language] = $sample === Sample::Least ? $words[0] : $most;
        }

        return $this->languages === [] ? $texts[''] : $texts;
    }

    /**
     * For how much more there is room behind what was filled in, as HasRoom::lettersLeft tells.
     *
     * @return array<string, ?array{letters: int, words: int}> by language, under "" where there is one text for all; null where there is plenty, or nobody knows
     */
    public function room(?Value $value, FilledView $view): array
    {
        [$element, $faces] = [$view->element($this->element), $view->surroundings->faces];
        $room = [];
        foreach ($this->languages === [] ? [''] : $this->languages as $language) {
            $text = $value instanceof TextValue ? $value->text($language) : '';
            $letters = $element instanceof HasRoom && $faces !== null ? $element->lettersLeft($text, $faces) : null;
            $isCounted = $letters !== null && $letters < HasRoom::MANY_LETTERS;
            $room[$language] = $isCounted ? ['letters' => $letters, 'words' => (int) round($letters / HasRoom::WORD)] : null;
        }

        return $room;
    }

    /**
     * @param non-empty-list<string> $words over and over again
     * @param \Closure(string): int $tooMany of them
     */
    private static function asManyAsFit(array $words, \Closure $tooMany): string
    {
        $most = [];
        while (count($most) < self::MOST_WORDS) {
            array_push($most, ...$words);
        }

        return implode(' ', array_slice($most, 0, max(1, count($most) - $tooMany(implode(' ', $most)))));
    }

    private static function words(Node $node): string
    {
        return strtr($node->text(0, self::LONGEST), ["\r\n" => "\n", "\r" => "\n"]);
    }
}
