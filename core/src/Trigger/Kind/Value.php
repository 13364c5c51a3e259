<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Kind;

use UpperPane\Core\Data\Rows\RowField;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Trigger\Kind;
use UpperPane\Core\Trigger\Memory;
use UpperPane\Core\Trigger\Rank;
use UpperPane\Core\Trigger\Reading\Reading;
use UpperPane\Core\Trigger\Reading\Told;
use UpperPane\Core\Units\WallClock;

/** A figure of a source rises to a limit, or falls below one. */
final readonly class Value implements Kind
{
    /**
     * @param ?float $risesTo it comes at this or more; null where it comes by falling
     * @param float $armed below this (rising), or from this on (falling), it may come again
     */
    private function __construct(private Rows $rows, public string $field, public ?float $risesTo, private float $armed)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'rows' => Field::object(Rows::fields())->required(),
            'field' => Field::pattern(RowField::NAME)->required(),
            'rises_to' => Field::number(),
            'falls_below' => Field::number()->saying('beside rises_to: it may come again once the figure has been below; alone: it comes there'),
        ]);
    }

    public static function fromNode(Node $node): self
    {
        $rises = $node->optional('rises_to')?->number();
        $falls = $node->optional('falls_below');
        $below = $falls?->number() ?? $rises ?? throw $node->refused(Reason::FieldMissing, 'states no limit; rises_to or falls_below is right.');
        if ($rises !== null && $falls !== null && $below > $rises) {
            throw $falls->refused(Reason::ValueRange, sprintf('is %s, above rises_to, %s.', $below, $rises));
        }

        return new self(Rows::fromNode($node->field('rows')), self::name($node->field('field')), $rises, $below);
    }

    private static function name(Node $node): string
    {
        $name = $node->text(1, 80);

        return preg_match('/' . RowField::NAME . '/D', $name) === 1 ? $name : throw $node->refused(Reason::ValueRange, sprintf('is "%s", which no field is called.', $name));
    }

    public static function rank(): Rank
    {
        return Rank::Value;
    }

    public function begun(int $ms, WallClock $clock): Memory
    {
        return new Memory(true);
    }

    public function hears(Reading $reading, Memory $memory, int $ms): ?array
    {
        if (!$reading instanceof Told || $reading->source !== $this->rows->source || ($reading->field !== null && $reading->field !== $this->field)) {
            return null;
        }
        $isBelow = $reading->value < $this->armed;
        if ($this->risesTo === null) {
            return [new Memory(!$isBelow), $memory->is && $isBelow];
        }
        $comes = $memory->is && $reading->value >= $this->risesTo;

        return [new Memory($isBelow || ($memory->is && !$comes)), $comes];
    }

    public function waited(Memory $memory, int $ms, WallClock $clock): Memory
    {
        return $memory;
    }

    public function compiled(\Closure $dueMs): array
    {
        return ['source' => $this->rows->source, 'field' => $this->field, 'rises_to' => $this->risesTo, 'armed' => $this->armed];
    }

    public function comesWith(Kind $other): bool
    {
        return $other instanceof self && $other->rows->source === $this->rows->source && $other->field === $this->field
            && ($other->risesTo === null) === ($this->risesTo === null);
    }

    public function lacks(Display $display): null
    {
        return null;
    }

    public function raisedBy(): array
    {
        return [];
    }
}
