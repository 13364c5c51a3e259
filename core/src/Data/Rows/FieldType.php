<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Rows;

use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Decimal;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\Moment;
use UpperPane\Core\Units\WallClock;

/** What a value of a tree is taken for. */
enum FieldType: string
{
    /** An instant where it is written as one (RFC 3339), all else as the tree has it. */
    case Auto = 'auto';
    case Text = 'text';
    case Number = 'number';
    case Boolean = 'boolean';
    case Instant = 'instant';
    /** A time on the clock of a zone, which becomes an instant. */
    case Local = 'local';
    case Date = 'date';

    private const BOOLEANS = ['true' => true, 'yes' => true, '1' => true, 'false' => false, 'no' => false, '0' => false];

    /** @return list<string> */
    public static function names(): array
    {
        return array_map(static fn (self $type): string => $type->value, self::cases());
    }

    /** The value, or null for what does not fit. */
    public function read(mixed $value, WallClock $clock, bool $hasComma): string|int|float|bool|Instant|Day|null
    {
        return match ($this) {
            self::Auto => is_string($value) ? Moment::ofRfc3339($value) ?? $value : (is_scalar($value) ? $value : null),
            self::Text => match (true) {
                is_bool($value) => $value ? 'true' : 'false',
                is_int($value), is_float($value) => Decimal::text($value),
                default => is_string($value) ? $value : null,
            },
            self::Number => is_string($value) ? self::number($value, $hasComma) : (is_int($value) || is_float($value) ? $value : null),
            self::Boolean => is_string($value) ? self::BOOLEANS[strtolower($value)] ?? null : (is_bool($value) ? $value : null),
            self::Instant => is_string($value) ? Moment::ofRfc3339($value) : null,
            self::Local => is_string($value) ? self::local($value, $clock) : null,
            self::Date => is_string($value) ? Day::parse($value) : null,
        };
    }

    /** A sign, figures, and a point or comma with figures on both sides; null for all else. */
    public static function number(string $text, bool $hasComma = false): int|float|null
    {
        if (preg_match($hasComma ? '/^[+-]?\d+(?:,\d+)?$/D' : '/^[+-]?\d+(?:\.\d+)?$/D', $text) !== 1) {
            return null;
        }
        $number = (float) strtr($text, ',', '.');

        return is_infinite($number) ? null : (floor($number) === $number && abs($number) < 2 ** 53 ? (int) $number : $number);
    }

    private static function local(string $text, WallClock $clock): ?Instant
    {
        if (preg_match('/^(\d{4})-(\d\d)-(\d\d)T([01]\d|2[0-3]):([0-5]\d)(?::([0-5]\d))?$/D', $text, $m) !== 1 || !Moment::isDay((int) $m[1], (int) $m[2], (int) $m[3])) {
            return null;
        }
        $seconds = Calendar::day((int) $m[1], (int) $m[2], (int) $m[3]) * Calendar::DAY_S + 3600 * (int) $m[4] + 60 * (int) $m[5] + (int) ($m[6] ?? 0);

        return Instant::ofMs(1000 * $clock->utcOrBefore($seconds));
    }
}
