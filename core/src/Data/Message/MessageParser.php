<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Text\Cursor;

/** Reads the syntax of ICU MessageFormat, apostrophes as by ICU's default (one quotes only where it stands before what it may quote). */
final class MessageParser
{
    use Cursor;

    private const DEEPEST = 20;

    /** Pattern_White_Space (UAX 31). */
    private const SPACE = '[\x09-\x0D \x{85}\x{200E}\x{200F}\x{2028}\x{2029}]*+';

    private int $depth = 0;

    public function __construct(private readonly string $text, private readonly string $path)
    {
    }

    /**
     * @return list<Piece>
     * @throws DataRefused
     */
    public function message(): array
    {
        if (!mb_check_encoding($this->text, 'UTF-8')) {
            throw $this->wrong('The message is no UTF-8.', 0);
        }

        return $this->pieces(false, true);
    }

    /**
     * @return list<Piece>
     * @throws DataRefused
     */
    private function pieces(bool $isPlural, bool $isOutermost): array
    {
        $pieces = [];
        $words = '';
        $special = $isPlural ? "{}'#" : "{}'";
        while ($this->at < strlen($this->text)) {
            $plain = strcspn($this->text, $special, $this->at);
            $words .= substr($this->text, $this->at, $plain);
            $this->at += $plain;
            $sign = $this->text[$this->at] ?? '';
            if ($sign === "'") {
                $words .= $this->apostrophe($isPlural);
            } elseif ($sign === '#') {
                $this->at++;
                array_push($pieces, new Words($words), new Figure());
                $words = '';
            } elseif ($sign === '{') {
                array_push($pieces, new Words($words), $this->argument());
                $words = '';
            } elseif ($sign === '}') {
                if (!$isOutermost) {
                    break;
                }
                // A brace that closes nothing is a sign like any other.
                $words .= '}';
                $this->at++;
            }
        }

        return [...$pieces, new Words($words)];
    }

    /** One apostrophe, or what a pair of them quotes. */
    private function apostrophe(bool $isPlural): string
    {
        $next = $this->text[$this->at + 1] ?? '';
        if ($next === "'") {
            $this->at += 2;

            return "'";
        }
        if ($next !== '{' && $next !== '}' && ($next !== '#' || !$isPlural)) {
            $this->at++;

            return "'";
        }
        $quoted = '';
        for ($this->at++; true;) {
            $end = strpos($this->text, "'", $this->at);
            if ($end === false) {
                $quoted .= substr($this->text, $this->at);
                $this->at = strlen($this->text);

                return $quoted;
            }
            $quoted .= substr($this->text, $this->at, $end - $this->at);
            $this->at = $end + 1;
            if (($this->text[$this->at] ?? '') !== "'") {
                return $quoted;
            }
            $quoted .= "'";
            $this->at++;
        }
    }

    /** @throws DataRefused */
    private function argument(): Piece
    {
        $begin = $this->at++;
        if (++$this->depth > self::DEEPEST) {
            throw $this->wrong(sprintf('The message is nested deeper than %d.', self::DEEPEST), $begin);
        }
        $this->space();
        $name = $this->matched('/\G[\p{L}\p{M}\p{N}_]+/u') ?? throw $this->unclosed($begin, 'wants the name of a field behind {');
        $this->space();
        if ($this->takes('}')) {
            $this->depth--;

            return new Argument($name, null, '');
        }
        if (!$this->takes(',')) {
            throw $this->unclosed($begin, sprintf('wants } or a comma behind {%s', $name));
        }
        $this->space();
        $typeAt = $this->at;
        $type = strtolower($this->matched('/\G[A-Za-z]+/') ?? throw $this->unclosed($begin, sprintf('wants a type behind {%s,', $name)));
        $this->space();
        $kind = ChoiceKind::tryFrom($type);
        if ($kind === null && !in_array($type, Formats::TYPES, true)) {
            throw $this->wrong(sprintf('The message has "%s" for a type; there are %s, plural, selectordinal and select.', $type, implode(', ', Formats::TYPES)), $typeAt);
        }
        if ($kind !== null) {
            if (!$this->takes(',')) {
                throw $this->unclosed($begin, sprintf('wants a comma and branches behind {%s, %s', $name, $type));
            }
            $choice = $this->choice($name, $kind, $begin);
            $this->depth--;

            return $choice;
        }
        $style = '';
        if (!$this->takes('}')) {
            if (!$this->takes(',')) {
                throw $this->unclosed($begin, sprintf('wants } or a comma behind {%s, %s', $name, $type));
            }
            $this->space();
            $styleAt = $this->at;
            $style = $this->style($begin);
            if (!(new Formats('en', 'UTC'))->knows($type, $style)) {
                throw $this->wrong(sprintf('The message has "%s" for a style of %s, which says nothing that can be told.', mb_strimwidth($style, 0, 40, '...'), $type), $styleAt);
            }
        }
        $this->depth--;

        return new Argument($name, $type, $style);
    }

    /** @throws DataRefused */
    private function style(int $begin): string
    {
        $from = $this->at;
        for ($open = 0; true; $this->at++) {
            $this->at += strcspn($this->text, "'{}", $this->at);
            $sign = $this->text[$this->at] ?? '';
            if ($sign === "'") {
                $end = strpos($this->text, "'", $this->at + 1);
                $this->at = $end === false ? throw $this->wrong('The message has a style with an apostrophe that is not closed.', $this->at) : $end;
            } elseif ($sign === '{') {
                $open++;
            } elseif ($sign === '}' && $open > 0) {
                $open--;
            } elseif ($sign === '}') {
                $style = substr($this->text, $from, $this->at++ - $from);

                return (string) preg_replace('/' . self::SPACE . '$/Du', '', $style);
            } else {
                throw $this->unclosed($begin, 'wants } behind a style');
            }
        }
    }

    /** @throws DataRefused */
    private function choice(string $name, ChoiceKind $kind, int $begin): Choice
    {
        $isPlural = $kind !== ChoiceKind::Select;
        $this->space();
        $offset = 0.0;
        if ($isPlural && preg_match('/\Goffset:/', $this->text, $m, 0, $this->at) === 1) {
            $this->at += strlen($m[0]);
            $this->space();
            $offset = (float) ($this->matched('/\G[+-]?\d+(?:\.\d+)?/') ?? throw $this->wrong('The message wants a number behind offset:.', $this->at));
        }
        $branches = [];
        while (true) {
            $this->space();
            if ($this->takes('}')) {
                break;
            }
            $at = $this->at;
            $selector = $isPlural ? $this->matched('/\G=[+-]?\d+(?:\.\d+)?/') : null;
            $selector ??= $this->matched('/\G[\p{L}\p{M}\p{N}_][\p{L}\p{M}\p{N}_-]*/u') ?? throw $this->unclosed($begin, 'wants a branch such as other {...}');
            $this->space();
            if (!$this->takes('{')) {
                throw $this->wrong(sprintf('The message wants { behind the branch "%s".', mb_strimwidth($selector, 0, 40, '...')), $this->at);
            }
            if (++$this->depth > self::DEEPEST) {
                throw $this->wrong(sprintf('The message is nested deeper than %d.', self::DEEPEST), $at);
            }
            $pieces = $this->pieces($isPlural, false);
            if (!$this->takes('}')) {
                throw $this->wrong('The message has a { that is never closed.', $at);
            }
            $this->depth--;
            $branches[$selector] ??= $pieces;
        }
        if (!isset($branches['other'])) {
            throw $this->wrong(sprintf('The message has a %s of "%s" without a branch other, which is wanted for all else.', $kind->value, $name), $begin);
        }

        return new Choice($name, $kind, $offset, $branches);
    }

    private function space(): void
    {
        $this->matched('/\G' . self::SPACE . '/u');
    }

    /** Where the message is at its end, what is wrong is the brace that was opened. */
    private function unclosed(int $begin, string $what): DataRefused
    {
        return $this->at >= strlen($this->text) ? $this->wrong('The message has a { that is never closed.', $begin) : $this->wrong("The message $what.", $this->at);
    }

    private function wrong(string $message, int $at): DataRefused
    {
        return DataRefused::atOffset(Reason::MessageSyntax, $message, mb_strlen(mb_scrub(substr($this->text, 0, $at))), $this->path);
    }
}
