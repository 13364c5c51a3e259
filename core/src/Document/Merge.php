<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/**
 * Two versions of a document that were both made from a third: what each changed, part by part, and the document with either's part taken.
 *
 * Parts are the fields of a document, and in a list of things with ids each thing; the order of such a list is a part of its own.
 */
final readonly class Merge
{
    private const NO_PART = ['format', 'id'];
    private const REORDERED = 'another order';
    private const WORDS = [
        'rect' => 'place and size', 'playlist' => 'what plays', 'text' => 'words', 'style' => 'style', 'media' => 'picture', 'duration_ms' => 'duration',
        'canvas' => 'canvas', 'places' => 'arrangement', 'follows' => 'leader',
    ];

    /**
     * @param array<string, mixed> $base parts by key
     * @param array<string, mixed> $mine
     * @param array<string, mixed> $theirs
     * @param array<string, mixed> $head format and id
     * @param array<string, true> $orders the keys of lists of things with ids
     */
    private function __construct(private array $base, private array $mine, private array $theirs, private array $head, private array $orders)
    {
    }

    /**
     * @param array<mixed> $base
     * @param array<mixed> $mine
     * @param array<mixed> $theirs
     */
    public static function of(array $base, array $mine, array $theirs): self
    {
        [$base, $mine, $head, $theirs] = [self::parts($base), self::parts($mine), array_intersect_key($theirs, array_flip(self::NO_PART)), self::parts($theirs)];
        $orders = [];
        foreach (array_keys($mine + $theirs) as $key) {
            if (($slash = strpos($key, '/')) !== false) {
                $orders[substr($key, 0, $slash)] = true;
            }
        }

        return new self($base, $mine, $theirs, $head, $orders);
    }

    /**
     * What is another in a later version of a document, part by part.
     *
     * @param array<mixed> $old
     * @param array<mixed> $new
     * @return list<string> in words; empty where all is as it was
     */
    public static function changes(array $old, array $new): array
    {
        return array_map(
            static fn (array $one): string => $one['mine'] === self::REORDERED ? "another $one[name]" : "$one[name]: $one[mine]",
            self::of($old, $new, $old)->differences(),
        );
    }

    /**
     * What is not the same in both.
     *
     * @return list<array{key: string, name: string, by: 'mine'|'theirs'|'both', mine: string, theirs: string}> what each did, in words
     */
    public function differences(): array
    {
        $differences = [];
        foreach (array_keys($this->mine + $this->theirs) as $key) {
            [$base, $mine, $theirs] = [$this->base[$key] ?? null, $this->mine[$key] ?? null, $this->theirs[$key] ?? null];
            if ($this->isOrder($key) ? self::sameOrder($mine, $theirs) : self::same($mine, $theirs)) {
                continue;
            }
            $by = match (true) {
                $this->isOrder($key) ? self::sameOrder($mine, $base) : self::same($mine, $base) => 'theirs',
                $this->isOrder($key) ? self::sameOrder($theirs, $base) : self::same($theirs, $base) => 'mine',
                default => 'both',
            };
            $differences[] = ['key' => $key, 'name' => $this->name($key), 'by' => $by, 'mine' => $this->done($key, $mine), 'theirs' => $this->done($key, $theirs)];
        }

        return $differences;
    }

    /**
     * The document with one side's version of each part: as it is said here, else that of the side that changed it, and mine where both did.
     *
     * @param array<string, string> $take `mine` or `theirs` by key
     * @return array<string, mixed>
     */
    public function document(array $take): array
    {
        $chosen = [];
        foreach ($this->differences() as ['key' => $key, 'by' => $by]) {
            $chosen[$key] = match ($take[$key] ?? '') {
                'mine' => 'mine',
                'theirs' => 'theirs',
                default => $by === 'theirs' ? 'theirs' : 'mine',
            };
        }
        $document = $this->head;
        $value = fn (string $key): mixed => ($chosen[$key] ?? 'theirs') === 'mine' ? $this->mine[$key] ?? null : $this->theirs[$key] ?? null;
        foreach (array_keys($this->theirs + $this->mine) as $key) {
            if (str_contains($key, '/')) {
                continue;
            }
            if (!$this->isOrder($key)) {
                $document[$key] = $value($key);
                continue;
            }
            $mineFirst = ($chosen[$key] ?? 'theirs') === 'mine';
            $order = self::ordered(self::ids($mineFirst ? $this->mine : $this->theirs, $key), self::ids($mineFirst ? $this->theirs : $this->mine, $key));
            $document[$key] = array_values(array_filter(array_map(static fn (string $id): mixed => $value("$key/$id"), $order), is_array(...)));
        }

        return array_filter($document, static fn (mixed $field): bool => $field !== null);
    }

    /**
     * @param array<mixed> $document
     * @return array<string, mixed>
     */
    private static function parts(array $document): array
    {
        $parts = [];
        foreach ($document as $field => $value) {
            if (in_array($field, self::NO_PART, true)) {
                continue;
            }
            $things = is_array($value) && array_is_list($value) ? array_filter($value, static fn (mixed $thing): bool => is_array($thing) && is_string($thing['id'] ?? null)) : [];
            if (!is_array($value) || ($things !== [] && count($things) < count($value)) || ($things === [] && $value !== [])) {
                $parts[(string) $field] = $value;
                continue;
            }
            $parts[(string) $field] = array_column($things, 'id');
            foreach ($things as $thing) {
                $parts["$field/{$thing['id']}"] = $thing;
            }
        }

        return $parts;
    }

    /** Whether a part is the order of things with ids. */
    private function isOrder(string $key): bool
    {
        return isset($this->orders[$key]);
    }

    /**
     * @param array<string, mixed> $side
     * @return list<string>
     */
    private static function ids(array $side, string $key): array
    {
        return is_array($side[$key] ?? null) ? array_values(array_filter($side[$key], is_string(...))) : [];
    }

    /**
     * One order, with what only the other has behind what it stands behind there.
     *
     * @param list<string> $first
     * @param list<string> $other
     * @return list<string>
     */
    private static function ordered(array $first, array $other): array
    {
        $known = array_fill_keys($first, true);
        [$behind, $front, $before] = [[], [], null];
        foreach ($other as $id) {
            if (!isset($known[$id])) {
                $before === null ? $front[] = $id : $behind[$before][] = $id;
            } else {
                $before = $id;
            }
        }
        $order = $front;
        foreach ($first as $id) {
            array_push($order, $id, ...$behind[$id] ?? []);
        }

        return $order;
    }

    private static function sameOrder(mixed $a, mixed $b): bool
    {
        [$a, $b] = array_map(static fn (mixed $ids): array => is_array($ids) ? array_filter($ids, is_string(...)) : [], [$a, $b]);

        return array_values(array_intersect($a, $b)) === array_values(array_intersect($b, $a));
    }

    private static function same(mixed $a, mixed $b): bool
    {
        return self::plain($a) === self::plain($b);
    }

    /** With fields in one order and whole numbers as such. */
    private static function plain(mixed $value): mixed
    {
        $value = $value instanceof \stdClass ? get_object_vars($value) : $value;
        if (is_array($value)) {
            if (!array_is_list($value)) {
                ksort($value);
            }

            return array_map(self::plain(...), $value);
        }

        return is_float($value) && $value === floor($value) && abs($value) < 1e15 ? (int) $value : $value;
    }

    private function name(string $key): string
    {
        [$field, $id] = [...explode('/', $key, 2), null];
        if ($id === null) {
            return $this->isOrder($key) ? "order of the $field" : (string) $field;
        }
        $thing = $this->mine[$key] ?? $this->theirs[$key] ?? [];

        return is_array($thing) && is_string($thing['name'] ?? null) ? $thing['name'] : $id;
    }

    /** What a side did to a part. */
    private function done(string $key, mixed $value): string
    {
        $base = $this->base[$key] ?? null;
        if ($this->isOrder($key)) {
            return self::sameOrder($value, $base) ? 'as it was' : self::REORDERED;
        }
        if (self::same($value, $base)) {
            return 'as it was';
        }
        if ($value === null || $base === null) {
            return $value === null ? 'taken out' : 'new';
        }
        if (!is_array($value) || !is_array($base) || !str_contains($key, '/')) {
            return is_scalar($value) ? (string) $value : 'changed';
        }
        $fields = array_filter(array_keys($value + $base), static fn (int|string $field): bool => !self::same($value[$field] ?? null, $base[$field] ?? null));

        return implode(', ', array_map(static fn (int|string $field): string => self::WORDS[$field] ?? strtr((string) $field, '_', ' '), $fields));
    }
}
