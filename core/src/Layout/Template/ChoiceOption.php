<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

/** What is set where an option is chosen. */
final readonly class ChoiceOption
{
    /** @param list<ChoiceSet> $sets */
    public function __construct(public array $sets)
    {
    }

    /** @return list<string> ids, each once */
    public function elements(): array
    {
        return array_values(array_unique(array_map(static fn (ChoiceSet $set): string => $set->element, $this->sets)));
    }
}
