<?php

declare(strict_types=1);

namespace UpperPane\App\CommandLine;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Units\Instant;

/** The words after a verb: values in order, and options with their values. */
final readonly class Arguments
{
    /**
     * @param list<string> $values
     * @param array<string, list<string>> $options
     */
    private function __construct(private array $values, private array $options)
    {
    }

    /**
     * @param list<string> $words
     * @param list<string> $names what the values are called
     * @param list<string> $known options of the verb
     * @throws DocumentRefused
     */
    public static function of(array $words, array $names, array $known): self
    {
        $values = [];
        $options = [];
        for ($i = 0; $i < count($words); $i++) {
            if (!str_starts_with($words[$i], '--')) {
                $values[] = $words[$i];
                continue;
            }
            [$name, $value] = [...explode('=', substr($words[$i], 2), 2), null];
            if (!in_array($name, $known, true)) {
                throw self::wrong("--$name is no option here; known are --" . implode(', --', $known) . '.');
            }
            $options[$name][] = $value ?? $words[++$i] ?? throw self::wrong("--$name wants a value.");
        }
        if (count($values) !== count($names)) {
            throw self::wrong(sprintf('Wanted: %s; %d given.', $names === [] ? 'no file' : implode(' ', $names), count($values)));
        }

        return new self($values, $options);
    }

    public function value(int $index): string
    {
        return $this->values[$index];
    }

    /** @throws DocumentRefused when it is not given */
    public function required(string $name): string
    {
        return $this->optional($name) ?? throw self::wrong("--$name is missing.");
    }

    public function optional(string $name): ?string
    {
        $given = $this->options[$name] ?? [];

        return $given === [] ? null : $given[count($given) - 1];
    }

    /** @return list<string> */
    public function all(string $name): array
    {
        return $this->options[$name] ?? [];
    }

    /** @throws DocumentRefused unless written as 1920x1080 */
    public function size(string $name): Size
    {
        $text = $this->required($name);
        if (preg_match('/^(\d{1,7})x(\d{1,7})$/D', $text, $m) !== 1) {
            throw self::wrong(sprintf('--%s is "%s"; 1920x1080 is right.', $name, $text));
        }

        return Size::px((int) $m[1], (int) $m[2]);
    }

    /** @throws DocumentRefused unless a figure from $least to $most; whole where both are */
    public function figure(string $name, int|float $least, int|float $most, string $unit): float
    {
        $text = $this->required($name);
        $pattern = is_int($least) && is_int($most) ? '/^\d{1,9}$/D' : '/^\d{1,9}(?:\.\d{1,9})?$/D';
        if (preg_match($pattern, $text) !== 1 || (float) $text < $least || (float) $text > $most) {
            throw self::wrong(sprintf('--%s is "%s"; %s to %s %s are right.', $name, $text, $least, $most, $unit));
        }

        return (float) $text;
    }

    /** @throws DocumentRefused */
    public function instant(string $name): Instant
    {
        return Instant::parse($this->required($name));
    }

    public static function wrong(string $message): DocumentRefused
    {
        return DocumentRefused::because(Reason::ArgumentsWrong, $message, '');
    }
}
