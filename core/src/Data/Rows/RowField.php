<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Rows;

use UpperPane\Core\Data\Path\JsonPath;
use UpperPane\Core\Data\Path\Nothing;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\Decimal;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\Unit;
use UpperPane\Core\Units\UtcOffsets;

/** One field of a row: where in the row it stands, and what it is taken for. */
final readonly class RowField
{
    public const NAME = '^[A-Za-z][A-Za-z0-9_]*$';
    private const MOST_DECIMALS = 12;

    /** @param ?array{string, string} $unit from, to */
    private function __construct(
        private JsonPath $of,
        private bool $isCount,
        private FieldType $type,
        private ?string $zone,
        private ?array $unit,
        private ?int $decimals,
        private bool $hasComma,
        public ?string $fallback,
    ) {
    }

    public static function field(): Field
    {
        $path = Field::text(1, JsonPath::LONGEST);

        return Field::either(
            $path,
            Field::object(Fields::of([
                'of' => $path->required(),
                'type' => Field::oneOf(...FieldType::names()),
                'zone' => Field::text(1, 80),
                'unit' => Field::list(Field::oneOf(...Unit::names()), 2, 2),
                'decimals' => Field::int(0, self::MOST_DECIMALS),
                'comma' => Field::bool(),
                'fallback' => Field::text(0, 200),
            ])),
            Field::object(Fields::of(['count' => $path->required(), 'fallback' => Field::text(0, 200)])),
        );
    }

    /** A member of the row as the tree has it. */
    public static function member(string $name): self
    {
        return new self(JsonPath::parse("\$['$name']"), false, FieldType::Auto, null, null, null, false, null);
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        if (is_string($node->value)) {
            return new self(JsonPath::parse($node->text(1, JsonPath::LONGEST), $node->path), false, FieldType::Auto, null, null, null, false, null);
        }
        $fallback = $node->optional('fallback')?->text(0, 200);
        $count = $node->optional('count');
        if ($count !== null) {
            $node->object('count', 'fallback');

            return new self(JsonPath::parse($count->text(1, JsonPath::LONGEST), $count->path), true, FieldType::Number, null, null, null, false, $fallback);
        }
        $node->object('of', 'type', 'zone', 'unit', 'decimals', 'comma', 'fallback');
        $of = $node->field('of');
        $type = FieldType::from($node->optional('type')?->oneOf(...FieldType::names()) ?? 'auto');
        $zone = $node->optional('zone');
        $numbers = [FieldType::Number, FieldType::Auto];
        foreach (['unit' => $numbers, 'decimals' => $numbers, 'comma' => [FieldType::Number], 'zone' => [FieldType::Local]] as $name => $types) {
            if ($node->has($name) && !in_array($type, $types, true)) {
                throw $node->field($name)->refused(Reason::ValueRange, sprintf('says nothing of a field of type %s; it belongs to %s.', $type->value, $types[0]->value));
            }
        }

        return new self(
            JsonPath::parse($of->text(1, JsonPath::LONGEST), $of->path),
            false,
            $type,
            $zone === null ? null : UtcOffsets::name($zone),
            self::unit($node->optional('unit')),
            $node->optional('decimals')?->int(0, self::MOST_DECIMALS),
            $node->optional('comma')?->bool() ?? false,
            $fallback,
        );
    }

    /** Whether a row has anything there, be it null. */
    public function isIn(mixed $row): bool
    {
        return $this->isCount || $this->of->first($row) !== Nothing::Here || (!$row instanceof \stdClass && $this->of->first((object) ['value' => $row]) !== Nothing::Here);
    }

    /** The path within the row. */
    public function path(): string
    {
        return $this->of->text;
    }

    /**
     * @return array{string|int|float|bool|Instant|Day|null, bool} the value, and whether there is one that does not fit
     */
    public function value(mixed $row, Clocks $clocks): array
    {
        if ($this->isCount) {
            return [count($this->of->nodes($row)), false];
        }
        $found = $this->of->first($row);
        if ($found === Nothing::Here && !$row instanceof \stdClass) {
            // A row that is no object has one field, its value.
            $found = $this->of->first((object) ['value' => $row]);
        }
        if ($found === Nothing::Here || $found === null) {
            return [null, false];
        }
        if ($found === '' && $this->type !== FieldType::Text && $this->type !== FieldType::Auto) {
            return [null, false];
        }
        $value = $this->type->read($found, $this->type === FieldType::Local ? $clocks->of($this->zone) : $clocks->own, $this->hasComma);
        if ($this->unit !== null && (is_int($value) || is_float($value))) {
            $value = Unit::converted($value, ...$this->unit);
        }
        if ($this->decimals !== null && is_float($value)) {
            $value = Decimal::rounded($value, $this->decimals);
        }

        return [$value, $value === null];
    }

    /**
     * @return ?array{string, string}
     * @throws Refused
     */
    private static function unit(?Node $node): ?array
    {
        if ($node === null) {
            return null;
        }
        $units = array_map(static fn (Node $one): string => $one->oneOf(...Unit::names()), $node->items(2));
        if (count($units) !== 2) {
            throw $node->refused(Reason::ValueRange, 'is a unit and the one that it is told in, such as ["m/s", "kn"].');
        }
        if (!Unit::isLike(...$units)) {
            throw $node->refused(Reason::ValueRange, sprintf('has %s and %s, which measure different things.', $units[0], $units[1]));
        }

        return [$units[0], $units[1]];
    }
}
