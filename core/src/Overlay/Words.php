<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Layout\Told\Languages;

/** What an overlay says: one text or one for each language, a message over rows or not. It is told as an element of a layout is. */
final readonly class Words
{
    public const LONGEST = 20_000;
    private const FIELDS = ['text', 'turn_ms', 'message', 'rows', 'separator', 'style'];

    /** @param array<string, mixed> $fields of the element that says it */
    private function __construct(public array $fields)
    {
    }

    /** Whether it says the same at every instant. */
    public function isSteady(): bool
    {
        return ($this->fields['message'] ?? false) !== true && count(is_array($this->fields['texts'] ?? null) ? $this->fields['texts'] : []) < 2;
    }

    public static function field(): Field
    {
        $text = Field::text(0, self::LONGEST, Role::Words);

        return Field::either($text, Field::map($text, Languages::MOST, Field::LANGUAGE));
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        $given = array_intersect_key($node->fields(), array_flip(self::FIELDS));
        $text = $node->field('text');
        if (!is_array($text->value)) {
            return new self($given);
        }
        $texts = [];
        foreach ($text->members(Languages::MOST) as $language => $one) {
            Languages::check((string) $language, $one);
            $texts[(string) $language] = $one->text(0, self::LONGEST);
        }

        return $texts === [] ? throw $text->refused(Reason::ValueRange, 'is empty; a text in one language at the least is right.')
            : new self(['text' => array_values($texts)[0], 'texts' => $texts] + $given);
    }
}
