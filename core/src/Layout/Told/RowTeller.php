<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Units\Instant;

/** Tells messages and pictures over one row of data, and keeps count of what was missing. */
final class RowTeller
{
    /** @var array<string, true> */
    private array $missing = [];

    /**
     * @param array<string, string|int|float|bool|Instant|Day|null> $values by name
     * @param array<string, ?string> $fallbacks what stands in the place of a missing value, by name
     * @param ?\Closure(string): ?Media $picture what a value means, where that is known
     */
    public function __construct(public readonly array $values, private readonly Formats $formats, private readonly array $fallbacks = [], private readonly ?\Closure $picture = null)
    {
    }

    /** The same row told in another way. */
    public function in(Formats $formats): self
    {
        return $formats === $this->formats ? $this : new self($this->values, $formats, $this->fallbacks, $this->picture);
    }

    public function tell(Message $message): string
    {
        $told = $message->tell($this->values, $this->formats, $this->fallbacks);
        foreach ($told->missing as $name) {
            $this->missing[$name] = true;
        }

        return $told->text;
    }

    /** The picture that the value of a field means; null where it is missing, or not known: then it is counted, and something else stands there. */
    public function picture(string $field): ?Media
    {
        $value = $this->values[$field] ?? null;
        $media = is_string($value) && $value !== '' && $this->picture !== null ? ($this->picture)($value) : null;
        if ($media === null || $media->isFilm()) {
            $this->missing[$field] = true;

            return null;
        }

        return $media;
    }

    /** @return list<string> arguments that were told by their fallback so far, each once */
    public function missing(): array
    {
        return array_map(strval(...), array_keys($this->missing));
    }
}
