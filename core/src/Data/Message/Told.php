<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

/** A message as it is told. */
final readonly class Told
{
    /** @param list<string> $missing arguments that were told by their fallback, each once, in the order of telling */
    public function __construct(public string $text, public array $missing)
    {
    }

    /** @return array{text: string, missing: list<string>} */
    public function toArray(): array
    {
        return ['text' => $this->text, 'missing' => $this->missing];
    }
}
