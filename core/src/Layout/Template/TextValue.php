<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Kind\HasRoom;
use UpperPane\Core\Layout\Style\Styling;

/** A text, or one in each of some languages; none of them is a message. */
final readonly class TextValue implements Value
{
    /** @param array<string, string> $texts by language, in the order of the slot, those that say something */
    private function __construct(private TextSlot $slot, private string $element, private ?string $text, private array $texts)
    {
    }

    public static function ofOne(TextSlot $slot, string $element, string $text): self
    {
        return new self($slot, $element, $text, []);
    }

    /** @param array<string, string> $texts by language */
    public static function ofLanguages(TextSlot $slot, string $element, array $texts): self
    {
        $texts = array_filter($texts, static fn (string $text): bool => !self::isBlank($text));

        return new self($slot, $element, null, array_filter(array_replace(array_fill_keys($slot->languages, null), $texts), is_string(...)));
    }

    public function isEmpty(): bool
    {
        return $this->text === null ? $this->texts === [] : self::isBlank($this->text);
    }

    public function put(Draft $draft): void
    {
        if ($this->text !== null || $this->texts !== []) {
            $draft->change($this->element, [
                'text' => $this->text ?? array_values($this->texts)[0],
                'texts' => $this->texts === [] ? null : $this->texts,
                'message' => null,
                'rows' => null,
                'marks' => null,
            ]);
        }
    }

    public function checkNames(Styling $styling, string $path): void
    {
        // Words are no names, whatever they begin with.
    }

    public function findings(FilledView $view): iterable
    {
        $missing = $this->missing();
        if ($missing !== []) {
            yield $view->finding($this->slot, 'slot.language', Level::Warning, sprintf('"%s" has no text in %s.', $this->slot->head()->name, implode(', ', $missing)), ['missing' => $missing]);
        }
        $element = $view->element($this->element);
        $faces = $view->surroundings->faces;
        if (!$element instanceof HasRoom || $faces === null) {
            return;
        }
        foreach ($this->shown($view) as $language => $text) {
            $words = $element->wordsTooMany($text, $faces);
            if ($words > 0) {
                yield $view->finding(
                    $this->slot,
                    'slot.long',
                    Level::Warning,
                    sprintf(
                        '%s"%s" is too long for "%s" by %s.',
                        $language === '' ? '' : "In $language: ",
                        $this->slot->head()->name,
                        $this->element,
                        $words === 1 ? 'one word' : "$words words",
                    ),
                    ['language' => $language === '' ? null : $language, 'words' => $words],
                );
            }
        }
    }

    /** @return list<string> languages of the slot in which it says nothing, where it says something in others */
    public function missing(): array
    {
        return $this->texts === [] ? [] : array_values(array_diff($this->slot->languages, array_keys($this->texts)));
    }

    /** In a language of the slot, or the one for all. */
    public function text(string $language): string
    {
        return $this->texts[$language] ?? ($this->text ?? '');
    }

    /** @return array<string, string> by language; under "" where there is one for all */
    private function shown(FilledView $view): array
    {
        $languages = array_keys($this->texts);

        return $languages === [] ? ['' => $this->text ?? ''] : array_intersect_key($this->texts, array_flip($view->surroundings->speaking->among(array_map(strval(...), $languages))));
    }

    private static function isBlank(string $text): bool
    {
        return preg_match('/[^\s\p{Z}\p{Cf}]/u', $text) !== 1;
    }
}
