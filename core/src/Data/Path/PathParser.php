<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Path;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Text\Cursor;

/**
 * Reads a JSONPath (RFC 9535) into functions.
 *
 * @phpstan-import-type Segment from JsonPath
 * @phpstan-import-type Value from Selectors
 * @phpstan-import-type Nodes from Selectors
 * @phpstan-import-type Holds from Selectors
 * @phpstan-type Operand array{kind: 'value'|'nodes'|'logical', value: ?Value, nodes: ?Nodes, holds: ?Holds, literal: bool}
 */
final class PathParser
{
    use Cursor;

    /** Largest whole number of I-JSON (RFC 7493, 2.2). */
    private const LARGEST = 9_007_199_254_740_991;

    /** Brackets and parentheses within one another. */
    private const DEEPEST = 40;

    /** A text held against an expression takes as long as so many values that are looked at. */
    private const MATCH_STEPS = 20;

    private const NAME = '[A-Za-z_\x{80}-\x{D7FF}\x{E000}-\x{10FFFF}][A-Za-z0-9_\x{80}-\x{D7FF}\x{E000}-\x{10FFFF}]*';

    private const FUNCTIONS = [
        'length' => ['value', ['value']],
        'count' => ['value', ['nodes']],
        'value' => ['value', ['nodes']],
        'match' => ['logical', ['value', 'value']],
        'search' => ['logical', ['value', 'value']],
    ];

    private int $depth = 0;

    public function __construct(private readonly string $text, private readonly string $path)
    {
    }

    /**
     * @return array{list<Segment>, ?list<string|int>, list<int>} and where in the text each ends, in bytes
     * @throws DataRefused
     */
    public function query(): array
    {
        if (!mb_check_encoding($this->text, 'UTF-8')) {
            throw $this->wrong('is no UTF-8.');
        }
        if (mb_strlen($this->text) > JsonPath::LONGEST) {
            throw $this->wrong(sprintf('has %d characters; %d are the most.', mb_strlen($this->text), JsonPath::LONGEST));
        }
        if (!$this->takes('$')) {
            throw $this->wrong('does not begin with $, the root.');
        }
        $found = $this->segments();
        if ($this->at < strlen($this->text)) {
            throw $this->wrong('has something that does not go on from here; .name, [...] or the end is right.');
        }

        return $found;
    }

    /**
     * @return array{list<Segment>, ?list<string|int>, list<int>} and where in the text each ends, in bytes
     * @throws DataRefused
     */
    private function segments(): array
    {
        $segments = [];
        $ends = [];
        $plain = [];
        while (true) {
            $before = $this->at;
            $this->space();
            if ($this->takes('..')) {
                $deep = true;
                [$selectors, $step] = $this->takes('[') ? $this->bracketed() : $this->shorthand();
            } elseif ($this->takes('.')) {
                $deep = false;
                [$selectors, $step] = $this->shorthand();
            } elseif ($this->takes('[')) {
                $deep = false;
                [$selectors, $step] = $this->bracketed();
            } else {
                $this->at = $before;

                return [$segments, $plain, $ends];
            }
            $segments[] = $deep ? Selectors::deep($selectors) : Selectors::flat($selectors);
            $ends[] = $this->at;
            $plain = $deep || $step === null || $plain === null ? null : [...$plain, $step];
        }
    }

    /**
     * `.name` or `.*`
     *
     * @return array{non-empty-list<Nodes>, string|int|null}
     * @throws DataRefused
     */
    private function shorthand(): array
    {
        if ($this->takes('*')) {
            return [[Selectors::all(...)], null];
        }
        $name = $this->matched('/\G' . self::NAME . '/u') ?? throw $this->wrong('wants a name or * here.');

        return [[Selectors::member($name)], $name];
    }

    /**
     * What stands in brackets, behind the first.
     *
     * @return array{non-empty-list<Nodes>, string|int|null}
     * @throws DataRefused
     */
    private function bracketed(): array
    {
        $this->deeper();
        $selectors = [];
        $step = null;
        do {
            $this->space();
            [$selectors[], $step] = $this->selector();
            $this->space();
        } while ($this->takes(','));
        if (!$this->takes(']')) {
            throw $this->wrong('wants ] or a comma here.');
        }
        $this->depth--;

        return [$selectors, count($selectors) === 1 ? $step : null];
    }

    /**
     * @return array{Nodes, string|int|null}
     * @throws DataRefused
     */
    private function selector(): array
    {
        $next = $this->text[$this->at] ?? '';
        if ($next === "'" || $next === '"') {
            $name = $this->quoted();

            return [Selectors::member($name), $name];
        }
        if ($this->takes('*')) {
            return [Selectors::all(...), null];
        }
        if ($this->takes('?')) {
            $this->space();

            return [Selectors::filter($this->logical()), null];
        }
        $begin = $this->at;
        $from = $this->whole();
        $this->space();
        if ($this->takes(':')) {
            $this->space();
            $to = $this->whole();
            $this->space();
            $by = null;
            if ($this->takes(':')) {
                $this->space();
                $by = $this->whole();
            }

            return [Selectors::slice($from, $to, $by ?? 1), null];
        }
        if ($from === null) {
            throw $this->wrong('wants a quoted name, a number, *, a slice or ?filter here.', $begin);
        }

        return [Selectors::element($from), $from];
    }

    /**
     * @return Holds
     * @throws DataRefused
     */
    private function logical(): \Closure
    {
        $this->deeper();
        $any = [];
        do {
            $this->space();
            $all = [];
            do {
                $this->space();
                $all[] = $this->basic();
                $this->space();
            } while ($this->takes('&&'));
            $any[] = Selectors::every($all);
        } while ($this->takes('||'));
        $this->depth--;

        return Selectors::some($any);
    }

    /**
     * @return Holds
     * @throws DataRefused
     */
    private function basic(): \Closure
    {
        $not = $this->takes('!');
        $this->space();
        if ($this->takes('(')) {
            $holds = $this->logical();
            $this->space();
            if (!$this->takes(')')) {
                throw $this->wrong('wants ) here.');
            }

            return $not ? static fn (mixed $node, Visit $visit): bool => !$holds($node, $visit) : $holds;
        }
        $begin = $this->at;
        $left = $this->operand();
        $this->space();
        $sign = $not ? null : $this->matched('/\G(?:==|!=|<=|>=|<|>)/');
        if ($sign !== null) {
            $this->space();
            $rightAt = $this->at;

            return Selectors::compared($this->valueOf($left, $begin), $sign, $this->valueOf($this->operand(), $rightAt));
        }
        if ($left['literal'] || $left['kind'] === 'value' && $left['nodes'] === null) {
            throw $this->wrong('is no test alone: a comparison is wanted, or a path that is there or not.', $begin);
        }
        $nodes = $left['nodes'];
        $holds = $left['holds'] ?? ($nodes === null ? static fn (): bool => false : static fn (mixed $node, Visit $visit): bool => $nodes($node, $visit) !== []);

        return $not ? static fn (mixed $node, Visit $visit): bool => !$holds($node, $visit) : $holds;
    }

    /**
     * A literal, a path or a function.
     *
     * @return Operand
     * @throws DataRefused
     */
    private function operand(): array
    {
        $next = $this->text[$this->at] ?? '';
        if ($next === '@' || $next === '$') {
            $this->at++;

            [$segments, $plain] = $this->segments();

            return self::chosen($next === '$', $segments, $plain);
        }
        if ($next === "'" || $next === '"') {
            return self::literal($this->quoted());
        }
        $number = $this->matched('/\G-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?/');
        if ($number !== null) {
            return self::literal(preg_match('/^-?\d{1,18}$/D', $number) === 1 ? (int) $number : (float) $number);
        }
        $begin = $this->at;
        $word = $this->matched('/\G[a-z][a-z0-9_]*/') ?? throw $this->wrong('wants a path, a value or a function here.');
        if ($this->takes('(')) {
            return $this->called($word, $begin);
        }
        $values = ['true' => true, 'false' => false, 'null' => null];

        return array_key_exists($word, $values) ? self::literal($values[$word]) : throw $this->wrong(sprintf('has "%s", which is neither true, false, null nor a function.', $word), $begin);
    }

    /**
     * @return Operand
     * @throws DataRefused
     */
    private function called(string $name, int $begin): array
    {
        [$gives, $wants] = self::FUNCTIONS[$name] ?? throw $this->wrong(sprintf('has no function "%s"; there are %s.', $name, implode(', ', array_keys(self::FUNCTIONS))), $begin);
        $this->deeper();
        $given = [];
        $this->space();
        if (!$this->takes(')')) {
            do {
                $this->space();
                $at = $this->at;
                $operand = $this->operand();
                $kind = $wants[count($given)] ?? throw $this->wrong(sprintf('gives %s more than %d arguments.', $name, count($wants)), $at);
                if ($kind === 'nodes') {
                    $given[] = $operand['kind'] === 'nodes' && $operand['nodes'] !== null ? $operand['nodes'] : throw $this->wrong("wants a path in $name.", $at);
                } else {
                    $given[] = $this->valueOf($operand, $at);
                }
                $this->space();
            } while ($this->takes(','));
            if (!$this->takes(')')) {
                throw $this->wrong('wants ) or a comma here.');
            }
        }
        $this->depth--;
        if (count($given) !== count($wants)) {
            throw $this->wrong(sprintf('gives %s %d arguments; %d are right.', $name, count($given), count($wants)), $begin);
        }
        $one = $given[0];
        $other = $given[1] ?? $one;
        $value = match ($name) {
            'length' => static fn (mixed $node, Visit $visit): mixed => Selectors::length($one($node, $visit)),
            'count' => static function (mixed $node, Visit $visit) use ($one): int {
                $nodes = $one($node, $visit);

                return is_array($nodes) ? count($nodes) : 0;
            },
            'value' => static function (mixed $node, Visit $visit) use ($one): mixed {
                $nodes = $one($node, $visit);

                return is_array($nodes) && count($nodes) === 1 ? $nodes[0] : Nothing::Here;
            },
            default => null,
        };
        $holds = static function (mixed $node, Visit $visit) use ($one, $other, $name): bool {
            $visit->took(self::MATCH_STEPS);
            $text = $one($node, $visit);
            $pattern = $other($node, $visit);

            return is_string($text) && is_string($pattern) && Regexp::matches($text, $pattern, $name === 'match');
        };

        return ['kind' => $gives, 'value' => $value, 'nodes' => null, 'holds' => $gives === 'logical' ? $holds : null, 'literal' => false];
    }

    /**
     * @param Operand $operand
     * @return Value
     * @throws DataRefused
     */
    private function valueOf(array $operand, int $at): \Closure
    {
        return $operand['value'] ?? throw $this->wrong(
            $operand['kind'] === 'logical' ? 'compares what is only true or false.' : 'compares a path that may choose several nodes; one that chooses one is wanted.',
            $at,
        );
    }

    /**
     * @param list<Segment> $segments
     * @param ?list<string|int> $plain
     * @return Operand
     */
    private static function chosen(bool $ofRoot, array $segments, ?array $plain): array
    {
        $nodes = static function (mixed $node, Visit $visit) use ($ofRoot, $segments): array {
            $found = [$ofRoot ? $visit->root : $node];
            foreach ($segments as $segment) {
                $found = $segment($found, $visit);
            }

            return $found;
        };
        if ($plain === null) {
            return ['kind' => 'nodes', 'value' => null, 'nodes' => $nodes, 'holds' => null, 'literal' => false];
        }
        $value = static fn (mixed $node, Visit $visit): mixed => JsonPath::along($plain, $ofRoot ? $visit->root : $node);
        $holds = static fn (mixed $node, Visit $visit): bool => JsonPath::along($plain, $ofRoot ? $visit->root : $node) !== Nothing::Here;

        return ['kind' => 'nodes', 'value' => $value, 'nodes' => $nodes, 'holds' => $holds, 'literal' => false];
    }

    /** @return Operand */
    private static function literal(mixed $value): array
    {
        return ['kind' => 'value', 'value' => static fn (): mixed => $value, 'nodes' => null, 'holds' => null, 'literal' => true];
    }

    /** @throws DataRefused */
    private function whole(): ?int
    {
        $begin = $this->at;
        $written = $this->matched('/\G-?\d+/');
        if ($written === null) {
            return null;
        }
        if (preg_match('/^(?:0|-?[1-9]\d{0,15})$/D', $written) !== 1 || abs((int) $written) > self::LARGEST) {
            throw $this->wrong('has a number that is none of a list: no zeros before it, no -0, and at most 2^53 - 1.', $begin);
        }

        return (int) $written;
    }

    /** @throws DataRefused */
    private function quoted(): string
    {
        $begin = $this->at;
        $quote = $this->text[$begin];
        $other = $quote === '"' ? "'" : '"';
        // A unit that is no surrogate, or a pair of them.
        $unit = 'u(?:[0-9A-Ca-cEFef][0-9A-Fa-f]{3}|[Dd][0-7][0-9A-Fa-f]{2}|[Dd][89ABab][0-9A-Fa-f]{2}\\\\u[Dd][C-Fc-f][0-9A-Fa-f]{2})';
        $character = '(?:[^\x00-\x1F\\\\' . $quote . ']|\\\\(?:[bfnrt\/\\\\' . $quote . "]|$unit))";
        $written = $this->matched('/\G' . $quote . $character . '*+' . $quote . '/u');
        if ($written === null) {
            throw $this->wrong('has a quoted text that is not closed, or an escape that is none.', $begin);
        }
        $inner = substr($written, 1, -1);
        if (!str_contains($inner, '\\')) {
            return $inner;
        }
        // JSON knows the same escapes, but for the single quote.
        $json = $quote === '"' ? $inner : strtr($inner, ['\\\\' => '\\\\', "\\'" => "'", $other => '\\"']);
        $text = json_decode("\"$json\"", false, 2);

        return is_string($text) ? $text : throw $this->wrong('has a quoted text with an escape that is none.', $begin);
    }

    private function space(): void
    {
        $this->at += strspn($this->text, " \t\n\r", $this->at);
    }

    /** @throws DataRefused */
    private function deeper(): void
    {
        if (++$this->depth > self::DEEPEST) {
            throw $this->wrong(sprintf('is nested deeper than %d.', self::DEEPEST));
        }
    }

    private function wrong(string $message, ?int $at = null): DataRefused
    {
        $offset = mb_strlen(mb_scrub(substr($this->text, 0, min($at ?? $this->at, strlen($this->text)))));

        $told = sprintf('The path %s: after %d characters it %s', mb_strimwidth(mb_scrub($this->text), 0, 60, '...'), $offset, $message);

        return DataRefused::atOffset(Reason::PathSyntax, $told, $offset, $this->path);
    }
}
