<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Units\Decimal;

/** What a message tells for one of its arguments; null for its fallback. */
final readonly class ArgumentValue implements Value
{
    /** @param array<string, mixed> $beyond the figures, where it lies beyond what the slot allows */
    public function __construct(
        private Slot $slot,
        private string $element,
        private string $argument,
        private int|float|Day|null $value,
        private ?int $decimals = null,
        private array $beyond = [],
    ) {
    }

    public function isEmpty(): bool
    {
        return $this->value === null;
    }

    public function put(Draft $draft): void
    {
        $value = $this->value;
        $draft->tell($this->element, $this->argument, $this->decimals === null || $value === null || $value instanceof Day ? $value : Decimal::rounded($value, $this->decimals), $this->decimals);
    }

    public function checkNames(Styling $styling, string $path): void
    {
        // A number and a day are no names.
    }

    public function findings(FilledView $view): iterable
    {
        if ($this->beyond !== []) {
            yield $view->finding($this->slot, 'slot.range', Level::Stop, sprintf('"%s" is %s; %s is right.', $this->slot->head()->name, ...$this->said()), $this->beyond);
        }
    }

    /** @return array{string, string} what it is, and what is right */
    private function said(): array
    {
        $text = static fn (mixed $value): string => is_int($value) || is_float($value) ? Decimal::text($value) : (is_string($value) ? $value : '');
        [$from, $to] = [$this->beyond['from'], $this->beyond['to']];

        return [$text($this->beyond['value']), match (true) {
            $from === null => 'at most ' . $text($to),
            $to === null => 'at least ' . $text($from),
            default => $text($from) . ' to ' . $text($to),
        }];
    }
}
