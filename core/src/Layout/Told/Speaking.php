<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Data\Message\Formats;

/** In which languages a place is spoken to, and what it says of itself. */
final readonly class Speaking
{
    /** In which messages are told where nobody says another. */
    private const OTHERWISE = 'en';

    /**
     * @param ?string $language the one that is asked for, whatever the place speaks
     * @param list<string> $languages those of the place, in their order; none where it has not chosen
     * @param array<string, string|int|float> $vars what it says, by name
     */
    public function __construct(public ?string $language = null, public array $languages = [], public array $vars = [])
    {
    }

    /**
     * Those of the languages of a text in which it is shown there, one after the other.
     *
     * @param non-empty-list<string> $given
     * @return non-empty-list<string>
     */
    public function among(array $given): array
    {
        $wanted = $this->language !== null ? [$this->language] : $this->languages;
        if ($wanted === []) {
            return $given;
        }
        $shown = array_values(array_intersect($wanted, $given));

        return $shown === [] ? [$given[0]] : $shown;
    }

    /**
     * In which a message is told.
     *
     * @param ?string $turn the language in which its element is shown; null where it has one text for all
     * @param ?string $rows that its rows state; null where they state none, or there are none
     */
    public function tellsIn(?string $turn, ?string $rows): string
    {
        return $this->language ?? $turn ?? $this->languages[0] ?? $rows ?? self::OTHERWISE;
    }

    /** @return array<string, string|int|float> by the names that messages have for it */
    public function arguments(): array
    {
        $arguments = [];
        foreach ($this->vars as $name => $value) {
            $arguments[Formats::PLACE . $name] = $value;
        }

        return $arguments;
    }
}
