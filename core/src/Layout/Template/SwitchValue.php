<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Layout\Style\Styling;

/** Whether some elements are there. */
final readonly class SwitchValue implements Value
{
    /** @param list<string> $elements */
    public function __construct(private array $elements, private bool $isOn)
    {
    }

    public function isEmpty(): bool
    {
        return false;
    }

    public function put(Draft $draft): void
    {
        foreach ($this->elements as $element) {
            $draft->change($element, ['hidden' => $this->isOn ? null : true]);
        }
    }

    public function checkNames(Styling $styling, string $path): void
    {
        // It names nothing.
    }

    public function findings(FilledView $view): iterable
    {
        return [];
    }
}
