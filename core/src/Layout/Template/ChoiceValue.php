<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Layout\Style\Styling;

/** The option that is chosen. */
final readonly class ChoiceValue implements Value
{
    public function __construct(private ChoiceOption $option)
    {
    }

    public function isEmpty(): bool
    {
        return false;
    }

    public function put(Draft $draft): void
    {
        foreach ($this->option->sets as $set) {
            $draft->set($set);
        }
    }

    public function checkNames(Styling $styling, string $path): void
    {
        // The slot looks at all of its options.
    }

    public function findings(FilledView $view): iterable
    {
        return [];
    }
}
