<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Data\Rows\FieldType;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\Instant;

/** How values are told in one language and one time zone, and what the place says for which they are. Source: ICU, as PHP brings it. */
final class Formats
{
    public const TYPES = ['number', 'date', 'time', 'spellout', 'ordinal', 'duration'];

    private const STYLES = [
        'short' => \IntlDateFormatter::SHORT, 'medium' => \IntlDateFormatter::MEDIUM, 'long' => \IntlDateFormatter::LONG, 'full' => \IntlDateFormatter::FULL,
        '' => \IntlDateFormatter::MEDIUM,
    ];

    /** @var array<string, \NumberFormatter|\MessageFormatter|\IntlDateFormatter|null> */
    private array $formatters = [];

    /** Of arguments that the place tells, and no field may be called so. */
    public const PLACE = 'place_';

    /**
     * @param string $timezone a name of the tz database
     * @param array<string, string|int|float> $place what it says, by the names that messages have for it
     */
    public function __construct(private readonly string $language, private readonly string $timezone, public readonly array $place = [])
    {
    }

    /** A number, or a text that reads as one; null for all else. */
    public static function number(string|int|float|bool|Instant|Day|null $value): int|float|null
    {
        return is_string($value) ? FieldType::number($value) : (is_int($value) || is_float($value) ? $value : null);
    }

    /** Null for what is missing, or does not fit the type. */
    public function told(string|int|float|bool|Instant|Day|null $value, ?string $type, string $style): ?string
    {
        if ($value === null) {
            return null;
        }
        if ($type === null) {
            return match (true) {
                is_bool($value) => $value ? 'true' : 'false',
                is_string($value) => $value,
                $value instanceof Instant => $this->time($value, 'both', ''),
                $value instanceof Day => $this->time($value, 'date', 'short'),
                default => $this->told($value, 'number', ''),
            };
        }
        if ($type === 'date' || $type === 'time') {
            return $value instanceof Instant || ($value instanceof Day && ($type === 'date')) ? $this->time($value, $type, $style) : null;
        }
        $number = self::number($value);
        $formatter = $number === null ? null : $this->formatter("$type,$style", fn (): \NumberFormatter|\MessageFormatter => $this->numberFormatter($type, $style));
        $told = match (true) {
            $formatter instanceof \NumberFormatter => $formatter->format($number),
            $formatter instanceof \MessageFormatter => $formatter->format([$number]),
            default => false,
        };

        return $told === false ? null : $told;
    }

    /** Whether there is such a style of a type. */
    public function knows(string $type, string $style): bool
    {
        return $this->told($type === 'date' || $type === 'time' ? Instant::ofMs(0) : 1, $type, $style) !== null;
    }

    /** The plural category of a number (UTS 35, part 3). */
    public function plural(int|float $number, bool $isOrdinal): string
    {
        $kind = $isOrdinal ? 'selectordinal' : 'plural';
        $formatter = $this->formatter($kind, fn (): \MessageFormatter => $this->message("{0,$kind,zero{zero}one{one}two{two}few{few}many{many}other{other}}"));

        return $formatter instanceof \MessageFormatter ? (string) $formatter->format([$number]) : 'other';
    }

    private function time(Instant|Day $value, string $type, string $style): ?string
    {
        // A day is no instant: no zone moves it.
        $zone = $value instanceof Day ? 'UTC' : $this->timezone;
        $formatter = $this->formatter("$type,$style,$zone", fn (): ?\IntlDateFormatter => $this->timeFormatter($type, $style, $zone));
        $told = $formatter instanceof \IntlDateFormatter ? $formatter->format($value instanceof Day ? $value->number * Calendar::DAY_S : $value->ms / 1000) : false;

        return is_string($told) ? $told : null;
    }

    private function timeFormatter(string $type, string $style, string $zone): ?\IntlDateFormatter
    {
        if ($type === 'both') {
            return new \IntlDateFormatter($this->language, \IntlDateFormatter::SHORT, \IntlDateFormatter::SHORT, $zone, \IntlDateFormatter::TRADITIONAL);
        }
        if (isset(self::STYLES[$style])) {
            [$date, $time] = $type === 'date' ? [self::STYLES[$style], \IntlDateFormatter::NONE] : [\IntlDateFormatter::NONE, self::STYLES[$style]];

            return new \IntlDateFormatter($this->language, $date, $time, $zone, \IntlDateFormatter::TRADITIONAL);
        }
        $pattern = $style;
        if (str_starts_with($style, '::')) {
            $best = (new \IntlDatePatternGenerator($this->language))->getBestPattern(substr($style, 2));
            if ($best === false || $best === '') {
                return null;
            }
            $pattern = $best;
        }

        return new \IntlDateFormatter($this->language, \IntlDateFormatter::NONE, \IntlDateFormatter::NONE, $zone, \IntlDateFormatter::TRADITIONAL, $pattern);
    }

    private function numberFormatter(string $type, string $style): \NumberFormatter|\MessageFormatter
    {
        if ($type !== 'number' || str_starts_with($style, '::')) {
            return $this->message($style === '' ? "{0,$type}" : "{0,$type,$style}");
        }
        [$kind, $pattern] = match ($style) {
            '', 'integer' => [\NumberFormatter::DECIMAL, null],
            'percent' => [\NumberFormatter::PERCENT, null],
            'currency' => [\NumberFormatter::CURRENCY, null],
            default => [\NumberFormatter::PATTERN_DECIMAL, $style],
        };
        $formatter = new \NumberFormatter($this->language, $kind, $pattern);
        if ($style === 'integer') {
            $formatter->setAttribute(\NumberFormatter::MAX_FRACTION_DIGITS, 0);
        }

        return $formatter;
    }

    private function message(string $pattern): \MessageFormatter
    {
        return new \MessageFormatter($this->language, $pattern);
    }

    /** @param \Closure(): (\NumberFormatter|\MessageFormatter|\IntlDateFormatter|null) $make */
    private function formatter(string $key, \Closure $make): \NumberFormatter|\MessageFormatter|\IntlDateFormatter|null
    {
        if (!array_key_exists($key, $this->formatters)) {
            try {
                $this->formatters[$key] = $make();
            } catch (\IntlException | \ValueError) {
                $this->formatters[$key] = null;
            }
        }

        return $this->formatters[$key];
    }
}
