<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Reason;

/** The components of an iCalendar object with their properties, unfolded (RFC 5545, 3.1). */
final class ContentLines
{
    /**
     * @param array<string, list<self>> $components by name
     * @param array<string, list<array{value: string, parameters: array<string, string>, line: int}>> $properties by name
     */
    private function __construct(public readonly string $name, public readonly int $line, public array $components = [], public array $properties = [])
    {
    }

    /**
     * @return list<self> the calendars of a file
     * @throws DataRefused
     */
    public static function read(string $text): array
    {
        if (!mb_check_encoding($text, 'UTF-8')) {
            throw DataRefused::because(Reason::DataSyntax, 'The calendar is not in UTF-8, as iCalendar files are.', '');
        }
        $root = new self('', 1);
        $open = [$root];
        foreach (self::unfolded($text) as $number => $line) {
            $inner = $open[count($open) - 1];
            $parameter = ';[A-Za-z0-9-]+=(?:"[^"]*"|[^";:,]*)(?:,(?:"[^"]*"|[^";:,]*))*';
            if (preg_match("/^([A-Za-z0-9-]+)((?:$parameter)*):(.*)$/sD", $line, $m) !== 1) {
                throw DataRefused::inLine(Reason::DataSyntax, sprintf('"%s" is no line of a calendar; NAME:value is right.', mb_strimwidth($line, 0, 40, '...')), $number);
            }
            $name = strtoupper($m[1]);
            if ($name === 'BEGIN') {
                $component = new self(strtoupper(trim($m[3])), $number);
                $inner->components[$component->name][] = $component;
                $open[] = $component;
            } elseif ($name === 'END') {
                if (count($open) === 1 || $inner->name !== strtoupper(trim($m[3]))) {
                    throw DataRefused::inLine(Reason::DataSyntax, sprintf('END:%s ends what was not begun.', mb_strimwidth($m[3], 0, 40, '...')), $number);
                }
                array_pop($open);
            } else {
                $inner->properties[$name][] = ['value' => $m[3], 'parameters' => self::parameters($m[2]), 'line' => $number];
            }
        }
        if (count($open) > 1) {
            throw DataRefused::inLine(Reason::DataSyntax, sprintf('the calendar ends before END:%s; part of it is missing.', $open[count($open) - 1]->name), substr_count($text, "\n") + 1);
        }
        if (!isset($root->components['VCALENDAR'])) {
            throw DataRefused::inLine(Reason::DataKind, 'this is no calendar; one begins with BEGIN:VCALENDAR.', 1);
        }

        return $root->components['VCALENDAR'];
    }

    /** @return ?array{value: string, parameters: array<string, string>, line: int} the first of that name */
    public function first(string $name): ?array
    {
        return $this->properties[$name][0] ?? null;
    }

    /** A value of type TEXT (3.3.11); null where there is none, or nothing in it. */
    public function text(string $name): ?string
    {
        $text = preg_replace_callback('/\\\\(.)/su', static fn (array $m): string => $m[1] === 'n' || $m[1] === 'N' ? "\n" : $m[1], $this->first($name)['value'] ?? '');

        return $text === null || trim($text) === '' ? null : $text;
    }

    /** @return \Generator<int, string> by the number of its first line, from 1 */
    private static function unfolded(string $text): \Generator
    {
        $whole = null;
        $begin = 1;
        foreach (preg_split('/\r\n|\n|\r/', $text) ?: [] as $index => $line) {
            if ($whole !== null && $line !== '' && ($line[0] === ' ' || $line[0] === "\t")) {
                $whole .= substr($line, 1);
                continue;
            }
            if ($whole !== null && trim($whole) !== '') {
                yield $begin => $whole;
            }
            [$whole, $begin] = [$line, $index + 1];
        }
        if ($whole !== null && trim($whole) !== '') {
            yield $begin => $whole;
        }
    }

    /** @return array<string, string> the first value of each, by its name */
    private static function parameters(string $written): array
    {
        preg_match_all('/;([A-Za-z0-9-]+)=("[^"]*"|[^";:,]*)/', $written, $m, PREG_SET_ORDER);
        $parameters = [];
        foreach ($m as [, $name, $value]) {
            $parameters[strtoupper($name)] ??= trim($value, '"');
        }

        return $parameters;
    }
}
