<?php

declare(strict_types=1);

namespace UpperPane\App\CommandLine;

/** Writes a value as JSON piece by piece, so that a long answer is never held as text beside itself. */
final readonly class JsonWriter
{
    private const FLAGS = JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR;

    /** What has fewer entries is written in one go. */
    private const LONG = 200;

    /** @param resource $out */
    public static function write($out, mixed $value): void
    {
        self::piece($out, $value, '');
        fwrite($out, "\n");
    }

    /** @param resource $out */
    private static function piece($out, mixed $value, string $in): void
    {
        if (!$value instanceof \Traversable && (!is_array($value) || !self::isLong($value))) {
            fwrite($out, str_replace("\n", "\n$in", json_encode($value, self::FLAGS)));

            return;
        }
        $isList = !is_array($value) || array_is_list($value);
        [$begin, $between] = $isList ? ['[', '['] : ['{', '{'];
        foreach ($value as $name => $one) {
            fwrite($out, "$between\n$in    " . ($isList || !is_scalar($name) ? '' : json_encode((string) $name, self::FLAGS) . ': '));
            self::piece($out, $one, "$in    ");
            $between = ',';
        }
        fwrite($out, ($between === ',' ? "\n$in" : $begin) . ($isList ? ']' : '}'));
    }

    /** @param array<mixed> $value */
    private static function isLong(array $value): bool
    {
        return count($value) > self::LONG || array_filter($value, static fn (mixed $one): bool => $one instanceof \Traversable || (is_array($one) && self::isLong($one))) !== [];
    }
}
