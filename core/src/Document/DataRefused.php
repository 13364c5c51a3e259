<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** Data that cannot be read, or something said about data that cannot be: beside the words, where in the text it stands. */
final class DataRefused extends Refused
{
    /** @var array{line?: int, column?: int, offset?: int} */
    private array $places = [];

    /**
     * @param string $text what is read, in UTF-8
     * @param int $byte where in it the fault stands
     */
    public static function inText(Reason $reason, string $message, string $text, int $byte, string $path = ''): self
    {
        [$line, $column] = self::placeOf($text, $byte);
        $refused = self::because($reason, sprintf('Line %d, column %d: %s', $line, $column, $message), $path);
        $refused->places = ['line' => $line, 'column' => $column];

        return $refused;
    }

    /** @param int $offset characters from 0 */
    public static function atOffset(Reason $reason, string $message, int $offset, string $path = ''): self
    {
        $refused = self::because($reason, $message, $path);
        $refused->places = ['offset' => $offset];

        return $refused;
    }

    /** The same with its place where only the line is known. */
    public static function inLine(Reason $reason, string $message, int $line, int $column = 1, string $path = ''): self
    {
        $refused = self::because($reason, sprintf('Line %d, column %d: %s', $line, $column, $message), $path);
        $refused->places = ['line' => $line, 'column' => $column];

        return $refused;
    }

    public function under(string $prefix): static
    {
        $refused = parent::under($prefix);
        $refused->places = $this->places;

        return $refused;
    }

    public function in(string $where, string $path): static
    {
        $refused = parent::in($where, $path);
        $refused->places = $this->places;

        return $refused;
    }

    public function toArray(): array
    {
        return ['error' => parent::toArray()['error'] + $this->places];
    }

    /** @return array{int, int} line and column, from 1, in characters; CRLF, LF and CR end a line */
    private static function placeOf(string $text, int $byte): array
    {
        $before = substr($text, 0, $byte);
        $lines = preg_split('/\r\n|\n|\r/', $before);
        assert($lines !== false);

        return [count($lines), 1 + mb_strlen($lines[count($lines) - 1], 'UTF-8')];
    }
}
