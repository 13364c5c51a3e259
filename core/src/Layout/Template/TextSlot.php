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
use UpperPane\Core\Layout\Told\Languages;
use UpperPane\Core\Layout\Told\SaysText;
use UpperPane\Core\Units\Instant;

/** Words: one text, or one for each of some languages. */
final readonly class TextSlot implements Slot
{
    use OpensElement;

    public const KIND = 'text';
    public const LONGEST = 20_000;

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

    private static function words(Node $node): string
    {
        return strtr($node->text(0, self::LONGEST), ["\r\n" => "\n", "\r" => "\n"]);
    }
}
