<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\Instant;

/** A day that a message tells: that very day, in whatever zone. */
final readonly class DateSlot implements Slot
{
    use OpensArgument {
        ofField as private ofOtherField;
    }

    public const KIND = 'date';
    private const DAY = '^\d{4}-\d\d-\d\d$';

    private function __construct(
        private SlotHead $head,
        private string $element,
        private string $argument,
        public ?Day $from,
        public ?Day $to,
        private ?ArgumentValue $default,
    ) {
    }

    public static function fields(): Fields
    {
        $day = Field::pattern(self::DAY);

        return Fields::of(self::argumentFields() + ['from' => $day, 'to' => $day, 'default' => $day]);
    }

    public static function fromNode(Node $node): static
    {
        $head = SlotHead::fromNode($node, self::fields());
        [$from, $to] = array_map(static fn (string $name): ?Day => ($edge = $node->optional($name)) === null ? null : self::day($edge), ['from', 'to']);
        if ($from !== null && $to !== null && $from->number > $to->number) {
            throw $node->field('to')->refused(Reason::ValueRange, sprintf('is %s, before from, which is %s.', $to, $from));
        }
        $make = static fn (?ArgumentValue $default): self => new self($head, $node->field('element')->id(), self::argumentOf($node), $from, $to, $default);
        $default = $node->optional('default');

        return $make($default === null ? null : $make(null)->read($default));
    }

    public function read(Node $node): ArgumentValue
    {
        $day = self::day($node);
        $beyond = ($this->from !== null && $day->number < $this->from->number) || ($this->to !== null && $day->number > $this->to->number);

        return new ArgumentValue($this, $this->element, $this->argument, $day, null, $beyond ? ['value' => $day->text, 'from' => $this->from?->text, 'to' => $this->to?->text] : []);
    }

    public function sample(Sample $sample, FilledView $view): ?string
    {
        // In most languages the days of the week and the months have one of their longest names each in this one.
        $day = $sample === Sample::Longest ? Day::parse('2026-09-30') : Day::parse('2026-05-01');
        $isWithin = $day !== null && $day->number >= ($this->from->number ?? $day->number) && $day->number <= ($this->to->number ?? $day->number);

        return $sample === Sample::Nothing ? null : ($isWithin ? $day->text : ($this->to ?? $this->from)?->text);
    }

    public function ofField(string|int|float|bool|Instant|Day|null $value, Formats $formats): string|int|float|bool|null
    {
        return $value instanceof Instant ? $formats->told($value, 'date', 'yyyy-MM-dd') : $this->ofOtherField($value, $formats);
    }

    /** @throws Refused */
    private static function day(Node $node): Day
    {
        return Day::parse($node->text(0, 200)) ?? throw $node->refused(Reason::ValueRange, sprintf('is "%s"; a day such as 2026-06-01 is right.', $node->text(0, 200)));
    }
}
