<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Rows;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Text\PrimaryText;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\Moment;
use UpperPane\Core\Units\WallClock;

/** One thing that has to hold for a row: of a value alone, or of a value and the instant. */
final readonly class Condition
{
    private const MINUTE_MS = 60_000;

    /** Minutes and days on either side of now: a hundred years. */
    private const MOST_MIN = 52_560_000;
    private const MOST_DAYS = 36_500;

    private const WITH_VALUE = ['equals', 'differs', 'one_of', 'at_least', 'at_most', 'between', 'contains', 'begins', 'within_days'];
    public const NAMES = [...self::WITH_VALUE, 'present', 'missing', 'upcoming'];

    /** Of which the value may be one that somebody carried there. */
    private const CARRYING = ['equals', 'differs', 'at_least', 'at_most', 'contains', 'begins'];
    private const CARRIED = 'carried';

    /**
     * @param list<string|int|float|bool> $values what it says, as a list wherever it stands alone
     * @param ?string $carried name of the value that is carried there and stands in their place; as long as none is, only what is to differ holds
     */
    private function __construct(
        public string $field,
        private string $is,
        private array $values,
        private int $fromMs,
        private ?int $toMs,
        private ?string $carried = null,
    ) {
    }

    public static function field(): Field
    {
        $one = [Field::text(0, 1_000, Role::Plain), Field::number(), Field::bool()];

        return Field::object(Fields::of([
            'field' => Field::pattern(RowField::NAME)->required(),
            'is' => Field::oneOf(...self::NAMES)->required(),
            'value' => Field::either(
                ...$one,
                ...[Field::list(Field::either(...$one), 1_000, 1), Field::object(Fields::of([self::CARRIED => Field::pattern(RowField::NAME)->required()])->named('Carried'))],
            ),
            'from_min' => Field::number(-self::MOST_MIN, self::MOST_MIN),
            'to_min' => Field::number(-self::MOST_MIN, self::MOST_MIN),
        ]));
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $is = $node->field('is')->oneOf(...self::NAMES);
        $node->object(...match (true) {
            $is === 'upcoming' => ['field', 'is', 'from_min', 'to_min'],
            in_array($is, self::WITH_VALUE, true) => ['field', 'is', 'value'],
            default => ['field', 'is'],
        });
        $minutes = static fn (string $name): ?int => ($one = $node->optional($name)) === null ? null : (int) round($one->number(-self::MOST_MIN, self::MOST_MIN, 'min') * self::MINUTE_MS);
        [$from, $to] = [$minutes('from_min') ?? 0, $minutes('to_min')];
        if ($to !== null && $to < $from) {
            throw $node->field('to_min')->refused(Reason::ValueRange, 'lies before from_min; the row would never be in.');
        }

        $carried = in_array($is, self::CARRYING, true) ? self::carriedName($node->field('value')) : null;

        return new self(
            $node->field('field')->text(1, 80),
            $is,
            $carried === null && in_array($is, self::WITH_VALUE, true) ? self::values($node->field('value'), $is) : [],
            $from,
            $to,
            $carried,
        );
    }

    /** @throws DocumentRefused */
    private static function carriedName(Node $value): ?string
    {
        if (!is_array($value->value) || array_is_list($value->value)) {
            return null;
        }
        $name = $value->object(self::CARRIED)->field(self::CARRIED);

        return preg_match('/' . RowField::NAME . '/D', $name->text(1, 80)) === 1
            ? $name->text(1, 80)
            : throw $name->refused(Reason::ValueRange, sprintf('is "%s", which no value is called.', $name->text(1, 80)));
    }

    /**
     * The same where a row was carried.
     *
     * @param array<string, mixed> $row
     */
    public function carrying(array $row): self
    {
        $value = $this->carried === null ? null : $row[$this->carried] ?? null;
        $value = $value instanceof Instant || $value instanceof Day ? (string) $value : $value;

        return is_scalar($value) ? new self($this->field, $this->is, [$value], $this->fromMs, $this->toMs) : $this;
    }

    public function isCarried(): bool
    {
        return $this->carried !== null;
    }

    public function dependsOnTime(): bool
    {
        return $this->is === 'upcoming' || $this->is === 'within_days';
    }

    /** Whether it holds, at whatever instant. */
    public function holds(string|int|float|bool|Instant|Day|null $value): bool
    {
        if ($this->carried !== null) {
            return $this->is === 'differs';
        }
        [$first, $second] = [...$this->values, null, null];

        return match ($this->is) {
            'present' => $value !== null,
            'missing' => $value === null,
            'differs' => $value === null || self::compared($value, $first) !== 0,
            'equals' => self::compared($value, $first) === 0,
            'one_of' => array_filter($this->values, static fn (string|int|float|bool $one): bool => self::compared($value, $one) === 0) !== [],
            'at_least' => self::compared($value, $first) >= 0 && self::isOrdered($value, $first),
            'at_most' => self::compared($value, $first) <= 0 && self::isOrdered($value, $first),
            'between' => self::isOrdered($value, $first) && self::isOrdered($value, $second) && self::compared($value, $first) >= 0 && self::compared($value, $second) <= 0,
            'contains' => is_string($value) && PrimaryText::contains($value, (string) $first),
            'begins' => is_string($value) && PrimaryText::begins($value, (string) $first),
            default => true,
        };
    }

    /**
     * The stretch of time in which it holds.
     *
     * @return array{int, int} from and to, Unix ms; an empty one where it never does
     */
    public function span(string|int|float|bool|Instant|Day|null $value, WallClock $clock): array
    {
        if ($this->is === 'upcoming') {
            return $value instanceof Instant ? [$this->toMs === null ? PHP_INT_MIN : $value->ms - $this->toMs, $value->ms - $this->fromMs] : [0, 0];
        }
        $ms = match (true) {
            $value instanceof Instant => $value->ms,
            $value instanceof Day => 1000 * $clock->utcOrBefore($value->number * Calendar::DAY_S),
            default => null,
        };

        return $ms === null ? [0, 0] : [$ms, $ms + (int) round((float) $this->values[0] * Calendar::DAY_MS)];
    }

    /** Below, at or above 0; null for values of different kinds. */
    private static function compared(string|int|float|bool|Instant|Day|null $value, string|int|float|bool|null $with): ?int
    {
        if ($value instanceof Instant) {
            $other = is_string($with) ? Moment::ofRfc3339($with) : null;

            return $other === null ? null : $value->ms <=> $other->ms;
        }
        if ($value instanceof Day) {
            $other = is_string($with) ? Day::parse($with) : null;

            return $other === null ? null : $value->number <=> $other->number;
        }

        return match (true) {
            (is_int($value) || is_float($value)) && (is_int($with) || is_float($with)) => $value <=> $with,
            // Bytes of UTF-8 are in the order of their code points.
            is_string($value) && is_string($with) => strcmp($value, $with),
            is_bool($value) && is_bool($with) => $value <=> $with,
            default => null,
        };
    }

    /** Whether the one can be more or less than the other. */
    private static function isOrdered(string|int|float|bool|Instant|Day|null $value, string|int|float|bool|null $with): bool
    {
        return !is_bool($value) && self::compared($value, $with) !== null;
    }

    /**
     * @return non-empty-list<string|int|float|bool>
     * @throws DocumentRefused
     */
    private static function values(Node $node, string $is): array
    {
        if ($is === 'one_of' || $is === 'between') {
            $values = array_map(self::value(...), $node->items(1_000));
            if ($values === [] || ($is === 'between' && count($values) !== 2)) {
                throw $node->refused(Reason::ValueRange, $is === 'between' ? 'is a list of two: the least and the most.' : 'is empty; nothing would ever be one of it.');
            }

            return $values;
        }
        if ($is === 'within_days') {
            return [$node->number(0.0, self::MOST_DAYS, 'days')];
        }
        if ($is === 'contains' || $is === 'begins') {
            return [$node->text(1, 1_000)];
        }

        return [self::value($node)];
    }

    /** @throws DocumentRefused */
    private static function value(Node $node): string|int|float|bool
    {
        $value = $node->value;

        return match (true) {
            is_string($value) => $node->text(0, 1_000),
            is_int($value), is_float($value), is_bool($value) => $value,
            default => throw $node->refused(Reason::TypeWrong, 'is neither a text, a number, true nor false.'),
        };
    }
}
