<?php

declare(strict_types=1);

namespace UpperPane\Core\Text;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/**
 * A time as it is written: a Unicode date pattern (UTS 35, part 4, Date Format Patterns) for a language, compiled into fields and the words in between.
 *
 * Names of months and days and the figures of the language are taken from ICU once; what is left needs no ICU, so that a player can tell the time by looking them up.
 * Letters: y M L d E c a H h K k m s for a point of time; d H m s for a time that is left, of which the largest that stands there takes all.
 *
 * @phpstan-type Token array{say: string}|array{field: string, digits: int}|array{field: string, names: list<string>}
 */
final readonly class TimePattern
{
    private const NUMBERS = ['y' => 'year', 'M' => 'month', 'L' => 'month', 'd' => 'day', 'H' => 'hour', 'h' => 'hour12', 'K' => 'hour11', 'k' => 'hour24', 'm' => 'minute', 's' => 'second'];
    private const LEFT = ['d' => 'days', 'H' => 'hours', 'm' => 'minutes', 's' => 'seconds'];
    private const UNIT_MS = ['days' => 86_400_000, 'hours' => 3_600_000, 'minutes' => 60_000, 'seconds' => 1000];

    /**
     * @param list<Token> $tokens
     * @param list<string> $figures 0 to 9 as the language writes them
     */
    private function __construct(public array $tokens, private array $figures)
    {
    }

    /**
     * @param string $locale BCP 47, such as en, pt-PT, el
     * @throws DocumentRefused at the path of the node, for a letter that no clock tells
     */
    public static function ofClock(Node $node, string $locale): self
    {
        return self::compiled($node, $locale, false);
    }

    /** @throws DocumentRefused */
    public static function ofTimeLeft(Node $node, string $locale): self
    {
        return self::compiled($node, $locale, true);
    }

    /** @throws DocumentRefused unless a language that ICU has names for */
    public static function locale(Node $node): string
    {
        $locale = $node->text(1, 40);
        $language = \Locale::getPrimaryLanguage($locale);
        if (!is_string($language) || !in_array($language, \ResourceBundle::getLocales('') ?: [], true)) {
            throw $node->refused(Reason::ValueUnknown, sprintf('is "%s", which is no language; one such as en, pt-PT or el is right.', $locale));
        }

        return $locale;
    }

    /** What a clock says at a local time (ms since 1970-01-01T00:00 on the wall). */
    public function at(int $localMs): string
    {
        $date = new \DateTimeImmutable('@' . intdiv($localMs - (($localMs % 1000) + 1000) % 1000, 1000));
        $hour = (int) $date->format('G');
        $values = [
            'year' => (int) $date->format('Y'),
            'month' => (int) $date->format('n'),
            'day' => (int) $date->format('j'),
            'weekday' => (int) $date->format('w'),
            'half' => $hour < 12 ? 0 : 1,
            'hour' => $hour,
            'hour11' => $hour % 12,
            'hour12' => $hour % 12 === 0 ? 12 : $hour % 12,
            'hour24' => $hour === 0 ? 24 : $hour,
            'minute' => (int) $date->format('i'),
            'second' => (int) $date->format('s'),
        ];

        return $this->written($values);
    }

    /** What is said of a time that is left, ms; of the smallest unit that is told, one that has begun counts. */
    public function left(int $ms): string
    {
        $units = array_filter(self::UNIT_MS, $this->has(...), ARRAY_FILTER_USE_KEY);
        $least = $units === [] ? 1000 : min($units);
        $left = (int) ceil(max(0, $ms) / $least) * $least;
        $values = [];
        foreach ($units as $field => $unit) {
            $values[$field] = intdiv($left, $unit);
            $left %= $unit;
        }

        return $this->written($values);
    }

    /**
     * The longest that it can say: the widest name of each, and figures of the widest sort.
     *
     * @param \Closure(string): float $width
     */
    public function longest(\Closure $width): string
    {
        $figure = self::widest($this->figures, $width);
        $text = '';
        $first = true;
        foreach ($this->tokens as $token) {
            if (isset($token['say'])) {
                $text .= $token['say'];
                continue;
            }
            $text .= isset($token['names'])
                ? self::widest($token['names'], $width)
                : str_repeat($figure, max($token['digits'], $token['field'] === 'year' ? ($token['digits'] === 2 ? 2 : 4) : ($first && isset(self::UNIT_MS[$token['field']]) ? 3 : 2)));
            $first = false;
        }

        return $text;
    }

    /** @return array{tokens: list<Token>, figures?: list<string>} */
    public function toArray(): array
    {
        return ['tokens' => $this->tokens] + ($this->figures[1] === '1' ? [] : ['figures' => $this->figures]);
    }

    /** Whether it tells a field. */
    public function has(string $field): bool
    {
        return in_array($field, array_column($this->tokens, 'field'), true);
    }

    /** @param array<string, int> $values */
    private function written(array $values): string
    {
        $text = '';
        foreach ($this->tokens as $token) {
            if (isset($token['say'])) {
                $text .= $token['say'];
                continue;
            }
            $value = $values[$token['field']] ?? 0;
            if (isset($token['names'])) {
                $text .= $token['names'][$token['field'] === 'month' ? $value - 1 : $value] ?? '';
                continue;
            }
            $number = str_pad((string) ($token['field'] === 'year' && $token['digits'] === 2 ? $value % 100 : $value), $token['digits'], '0', STR_PAD_LEFT);
            $text .= strtr($number, $this->figures);
        }

        return $text;
    }

    /**
     * @param list<string> $words
     * @param \Closure(string): float $width
     */
    private static function widest(array $words, \Closure $width): string
    {
        $widest = '';
        foreach ($words as $word) {
            $widest = $widest === '' || $width($word) > $width($widest) ? $word : $widest;
        }

        return $widest;
    }

    private static function compiled(Node $node, string $locale, bool $left): self
    {
        $pattern = $node->text(1, 200);
        $tokens = [];
        $say = static function (string $words) use (&$tokens): void {
            $last = count($tokens) - 1;
            if ($last >= 0 && isset($tokens[$last]['say'])) {
                $tokens[$last]['say'] .= $words;
            } elseif ($words !== '') {
                $tokens[] = ['say' => $words];
            }
        };
        // Quoted words, two quotes for one, a row of the same letter, or anything else.
        preg_match_all("/''|'(?:[^']|'')*'|([A-Za-z])\\1*|[^A-Za-z']+|'/u", $pattern, $found, PREG_OFFSET_CAPTURE);
        foreach ($found[0] as [$part, $at]) {
            if ($part === "''") {
                $say("'");
            } elseif ($part === "'") {
                throw $node->refused(Reason::PatternSyntax, sprintf('has a quote at character %d that is not closed: words stand between two quotes, such as \'at\'.', $at + 1));
            } elseif ($part[0] === "'") {
                $say(str_replace("''", "'", substr($part, 1, -1)));
            } elseif (preg_match('/[A-Za-z]/', $part[0]) === 1) {
                $tokens[] = self::field($node, $part, $at, $locale, $left);
            } else {
                $say($part);
            }
        }
        $formatter = new \NumberFormatter($locale, \NumberFormatter::PATTERN_DECIMAL, '0');

        return new self($tokens, array_map(static fn (int $figure): string => (string) $formatter->format($figure), range(0, 9)));
    }

    /** @return array{field: string, digits: int}|array{field: string, names: list<string>} */
    private static function field(Node $node, string $letters, int $at, string $locale, bool $left): array
    {
        [$letter, $count] = [$letters[0], strlen($letters)];
        if ($left) {
            return isset(self::LEFT[$letter]) && $count <= 3
                ? ['field' => self::LEFT[$letter], 'digits' => $count]
                : throw $node->refused(Reason::PatternSyntax, sprintf('has "%s" at character %d; d, H, m and s tell a time that is left, words stand in quotes.', $letters, $at + 1));
        }
        $named = static fn (int $count, int $hour, int $hours): array => array_map(static fn (int $n): string => self::name($locale, $letters, 3600 * ($hour + $hours * $n)), range(0, $count - 1));
        $names = match (true) {
            // In steps of 731 hours from 15 January 1970 each month is met once; 4 January was a Sunday.
            in_array($letter, ['M', 'L'], true) && $count >= 3 && $count <= 5 => ['month', $named(12, 14 * 24, 731)],
            ($letter === 'E' && $count <= 5) || ($letter === 'c' && $count >= 3 && $count <= 5) => ['weekday', $named(7, 3 * 24 + 12, 24)],
            $letter === 'a' && $count <= 3 => ['half', $named(2, 6, 12)],
            default => null,
        };
        if ($names !== null) {
            return ['field' => $names[0], 'names' => $names[1]];
        }
        if (!isset(self::NUMBERS[$letter]) || $count > ($letter === 'y' ? 4 : 2) || ($letter === 'y' && $count === 3)) {
            throw $node->refused(Reason::PatternSyntax, sprintf('has "%s" at character %d; y, M, L, d, E, c, a, H, h, K, k, m and s tell the time, words stand in quotes.', $letters, $at + 1));
        }

        return ['field' => self::NUMBERS[$letter], 'digits' => $count];
    }

    private static function name(string $locale, string $letters, int $at): string
    {
        $formatter = new \IntlDateFormatter($locale, \IntlDateFormatter::NONE, \IntlDateFormatter::NONE, 'UTC', \IntlDateFormatter::GREGORIAN, $letters);

        return (string) $formatter->format($at);
    }
}
