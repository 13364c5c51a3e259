<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** A number that a message tells. */
final readonly class NumberSlot implements Slot
{
    use OpensArgument;

    public const KIND = 'number';
    private const MOST_DECIMALS = 12;
    /** where nobody has said how many there may be */
    private const MANY = 9_999.0;

    private function __construct(
        private SlotHead $head,
        private string $element,
        private string $argument,
        public ?float $from,
        public ?float $to,
        public ?int $decimals,
        private ?ArgumentValue $default,
    ) {
    }

    public static function fields(): Fields
    {
        return Fields::of(self::argumentFields() + [
            'from' => Field::number(),
            'to' => Field::number(),
            'decimals' => Field::int(0, self::MOST_DECIMALS)->saying('to which it is rounded, half away from zero, and that it is told with where no format is said'),
            'default' => Field::number(),
        ]);
    }

    public static function fromNode(Node $node): static
    {
        $head = SlotHead::fromNode($node, self::fields());
        [$from, $to] = [$node->optional('from')?->number(), $node->optional('to')?->number()];
        if ($from !== null && $to !== null && $from > $to) {
            throw $node->field('to')->refused(Reason::ValueRange, sprintf('is %s, less than from, which is %s.', $to, $from));
        }
        $decimals = $node->optional('decimals')?->int(0, self::MOST_DECIMALS);
        $make = static fn (?ArgumentValue $default): self => new self($head, $node->field('element')->id(), self::argumentOf($node), $from, $to, $decimals, $default);
        $default = $node->optional('default');

        return $make($default === null ? null : $make(null)->read($default));
    }

    public function sample(Sample $sample, FilledView $view): ?float
    {
        $from = $this->from ?? min(0.0, $this->to ?? 0.0);
        $to = $this->to ?? max(self::MANY, $from);
        $length = fn (float $number): int => strlen(number_format($number, $this->decimals ?? 0, '.', ''));
        $ends = $length($from) > $length($to) ? [$to, $from] : [$from, $to];

        return match ($sample) {
            Sample::Nothing => null,
            Sample::Least => $ends[0],
            Sample::Longest => $ends[1],
        };
    }

    public function read(Node $node): ArgumentValue
    {
        $number = $node->number();
        $beyond = ($this->from !== null && $number < $this->from) || ($this->to !== null && $number > $this->to);
        $value = is_int($node->value) ? $node->value : $number;

        return new ArgumentValue($this, $this->element, $this->argument, $value, $this->decimals, $beyond ? ['value' => $value, 'from' => $this->from, 'to' => $this->to] : []);
    }
}
