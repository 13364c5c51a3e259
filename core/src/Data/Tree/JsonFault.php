<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Json;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Text\Cursor;

/** Finds out where a JSON text is wrong, sign by sign, which what reads it fast does not tell. */
final class JsonFault
{
    use Cursor;

    private const NUMBER = '/\G-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?/';
    private const STRING = '/\G"(?:[^"\\\\\x00-\x1F]++|\\\\(?:["\\\\\/bfnrt]|u[0-9A-Fa-f]{4}))*+"/';

    private function __construct(private readonly string $text)
    {
    }

    public static function in(string $text): DataRefused
    {
        if (!mb_check_encoding($text, 'UTF-8')) {
            // What is no UTF-8 becomes another sign: the first difference is where it stands.
            $at = strspn($text ^ mb_scrub($text, 'UTF-8'), "\0");

            return DataRefused::inText(Reason::DataSyntax, 'the bytes are no UTF-8, as JSON is.', $text, $at);
        }
        $fault = new self($text);

        return $fault->value('', 1) ?? $fault->behind();
    }

    private function behind(): DataRefused
    {
        $this->space();

        return $this->at < strlen($this->text) ? $this->wrong('something stands behind the end of the JSON.') : $this->wrong('this is no JSON that can be read.');
    }

    private function value(string $path, int $depth): ?DataRefused
    {
        $this->space();
        $sign = $this->text[$this->at] ?? '';
        if ($sign === '{' || $sign === '[') {
            return $depth > Json::DEEPEST ? $this->wrong(sprintf('lists and objects are nested deeper than %d.', Json::DEEPEST), $path) : $this->inside($path, $depth, $sign === '{');
        }
        if ($sign === '"') {
            return $this->string($path)[1];
        }
        $number = $this->matched(self::NUMBER);
        if ($number !== null) {
            return is_infinite((float) $number) ? $this->wrong('a number is larger than any that can be told.', $path) : null;
        }
        if ($this->matched('/\G(?:true|false|null)/') === null) {
            return $this->wrong($sign === '' ? 'the JSON ends where a value is wanted.' : 'no value of JSON begins like this.', $path);
        }

        return null;
    }

    private function inside(string $path, int $depth, bool $isObject): ?DataRefused
    {
        $close = $isObject ? '}' : ']';
        $names = [];
        $this->at++;
        $this->space();
        if ($this->takes($close)) {
            return null;
        }
        for ($place = 0; true; $place++) {
            $inner = "$path/$place";
            if ($isObject) {
                $this->space();
                $begin = $this->at;
                [$name, $fault] = ($this->text[$this->at] ?? '') === '"' ? $this->string($path) : ['', $this->wrong('a member begins with its name in double quotes.', $path)];
                if ($fault !== null) {
                    return $fault;
                }
                $inner = "$path/" . str_replace(['~', '/'], ['~0', '~1'], $name);
                if (isset($names["_$name"])) {
                    return $this->wrong(sprintf('the name "%s" stands twice in one object.', mb_strimwidth($name, 0, 40, '...')), $inner, $begin);
                }
                if (str_starts_with($name, "\0")) {
                    return $this->wrong('a name begins with U+0000.', $inner, $begin);
                }
                $names["_$name"] = true;
                $this->space();
                if (!$this->takes(':')) {
                    return $this->wrong('a colon is wanted behind the name.', $inner);
                }
            }
            $fault = $this->value($inner, $depth + 1);
            if ($fault !== null) {
                return $fault;
            }
            $this->space();
            if ($this->takes($close)) {
                return null;
            }
            if (!$this->takes(',')) {
                return $this->wrong("a comma or $close is wanted.", $path);
            }
        }
    }

    /** @return array{string, ?DataRefused} */
    private function string(string $path): array
    {
        $begin = $this->at;
        $written = $this->matched(self::STRING);
        if ($written === null) {
            preg_match('/\G"(?:[^"\\\\\x00-\x1F]++|\\\\(?:["\\\\\/bfnrt]|u[0-9A-Fa-f]{4}))*+/', $this->text, $m, 0, $begin);

            return ['', $this->wrong('a text is not closed, or has an escape or a control character that JSON does not know.', $path, $begin + strlen($m[0] ?? ''))];
        }
        $text = json_decode($written);

        return is_string($text) ? [$text, null] : ['', $this->wrong('a text has half of a pair of surrogates.', $path, $begin)];
    }

    private function space(): void
    {
        $this->at += strspn($this->text, " \t\n\r", $this->at);
    }

    private function wrong(string $message, string $path = '', ?int $at = null): DataRefused
    {
        return DataRefused::inText(Reason::DataSyntax, $message, $this->text, min($at ?? $this->at, strlen($this->text)), $path);
    }
}
