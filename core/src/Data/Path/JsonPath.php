<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Path;

use UpperPane\Core\Document\DataRefused;

/**
 * A path that chooses nodes of a JSON tree (RFC 9535), whose objects are of stdClass and whose lists are arrays.
 *
 * @phpstan-type Segment \Closure(list<mixed>, Visit): list<mixed>
 */
final readonly class JsonPath
{
    /** Characters of a path. */
    public const LONGEST = 2_000;

    /**
     * @param list<Segment> $segments
     * @param ?list<string|int> $plain names and places where it says nothing but those
     * @param list<int> $ends where in the text each segment ends, in bytes
     */
    private function __construct(public string $text, private array $segments, private ?array $plain, private array $ends)
    {
    }

    /**
     * @param string $path of the document that says it
     * @throws DataRefused where it is no path; `offset` is where, in characters from 0
     */
    public static function parse(string $text, string $path = ''): self
    {
        $parser = new PathParser($text, $path);
        [$segments, $plain, $ends] = $parser->query();

        return new self($text, $segments, $plain, $ends);
    }

    /** Whether it chooses one node at most, whatever the tree is. */
    public function isSingular(): bool
    {
        return $this->plain !== null;
    }

    /**
     * @return list<mixed> the values of the nodes, in the order of the RFC
     * @throws DataRefused where finding them would take too many steps
     */
    public function nodes(mixed $root): array
    {
        if ($this->plain !== null) {
            $found = self::along($this->plain, $root);

            return $found === Nothing::Here ? [] : [$found];
        }
        $visit = new Visit($root, $this->text);
        $nodes = [$root];
        foreach ($this->segments as $segment) {
            $nodes = $segment($nodes, $visit);
        }

        return $nodes;
    }

    /**
     * How far it leads in a tree in which it leads nowhere any more, though it did in an earlier one: because what it goes by is not there, and not
     * because a list has nothing in it.
     *
     * @return ?string the path up to what is not there; null where it finds nodes, found none before either, or a list is empty
     * @throws DataRefused where finding them would take too many steps
     */
    public function lost(mixed $before, mixed $now): ?string
    {
        [$visits, $old, $new] = [[new Visit($before, $this->text), new Visit($now, $this->text)], [$before], [$now]];
        foreach ($this->segments as $number => $segment) {
            $old = $segment($old, $visits[0]);
            $next = $segment($new, $visits[1]);
            if ($old === []) {
                return null;
            }
            if ($next === []) {
                // A whole tree with nothing in it is no list with nothing in it.
                $isEmpty = static fn (mixed $node): bool => $node === null || is_array($node) || ($number > 0 && $node instanceof \stdClass && get_object_vars($node) === []);

                return array_filter($new, $isEmpty) === [] ? substr($this->text, 0, $this->ends[$number]) : null;
            }
            $new = $next;
        }

        return null;
    }

    /** The value of its first node; Nothing where there is none. */
    public function first(mixed $root): mixed
    {
        return $this->plain !== null ? self::along($this->plain, $root) : $this->nodes($root)[0] ?? Nothing::Here;
    }

    /** @param list<string|int> $way names of members and places in lists, behind the end for those below 0 */
    public static function along(array $way, mixed $node): mixed
    {
        foreach ($way as $step) {
            if (is_string($step)) {
                if (!$node instanceof \stdClass || !property_exists($node, $step)) {
                    return Nothing::Here;
                }
                $node = $node->{$step};
            } else {
                $place = is_array($node) && $step < 0 ? count($node) + $step : $step;
                if (!is_array($node) || !array_key_exists($place, $node)) {
                    return Nothing::Here;
                }
                $node = $node[$place];
            }
        }

        return $node;
    }
}
