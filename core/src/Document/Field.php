<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** One field of a kind of document: what its value means, and its JSON Schema (2020-12). */
final readonly class Field
{
    public const ID_PATTERN = '^[A-Za-z0-9][A-Za-z0-9._-]*$';

    /** Of what stands in the place of a value of the house style, and of its name there. */
    public const STYLE_NAME = '^@' . self::NAME_IN_STYLE . '$';
    /** Of a language (the commonest form of RFC 5646): `en`, `pt-PT`. */
    public const LANGUAGE = '^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$';

    public const NAME_IN_STYLE = '[a-z][a-z0-9-]{0,79}';

    /**
     * @param array<string, mixed> $schema
     * @param ?Fields $fields where the value is an object
     * @param ?self $each where it is a list, or an object whose names are ids
     * @param list<self> $either where it is one of several, told apart by what each requires
     */
    private function __construct(
        public Role $role,
        private array $schema,
        public bool $isRequired = false,
        public ?Fields $fields = null,
        public ?self $each = null,
        public array $either = [],
    ) {
    }

    public static function text(int $least = 1, int $most = 200, Role $role = Role::Plain): self
    {
        return new self($role, ['type' => 'string'] + ($least > 0 ? ['minLength' => $least] : []) + ['maxLength' => $most]);
    }

    /** A line of text: no control characters. */
    public static function name(int $most = 200): self
    {
        return new self(Role::Plain, ['type' => 'string', 'minLength' => 1, 'maxLength' => $most, 'pattern' => '^[^\\x00-\\x1F\\x7F]*$']);
    }

    public static function pattern(string $pattern): self
    {
        return new self(Role::Plain, ['type' => 'string', 'pattern' => $pattern]);
    }

    /** A value that is just this. */
    public static function constant(string $value): self
    {
        return new self(Role::Plain, ['const' => $value]);
    }

    public static function oneOf(string ...$values): self
    {
        return new self(Role::Plain, ['enum' => array_values($values)]);
    }

    /** Whatever JSON has. */
    public static function any(): self
    {
        return new self(Role::Plain, ['description' => 'whatever JSON has']);
    }

    /** null, beside others. */
    public static function nothing(): self
    {
        return new self(Role::Plain, ['type' => 'null']);
    }

    public static function bool(): self
    {
        return new self(Role::Plain, ['type' => 'boolean']);
    }

    public static function int(?int $least = null, ?int $most = null, Role $role = Role::Plain): self
    {
        return new self($role, ['type' => 'integer'] + array_filter(['minimum' => $least, 'maximum' => $most], is_int(...)));
    }

    public static function number(int|float|null $least = null, int|float|null $most = null, Role $role = Role::Plain): self
    {
        return new self($role, ['type' => 'number'] + array_filter(['minimum' => $least, 'maximum' => $most], static fn (mixed $edge): bool => $edge !== null));
    }

    public static function id(Role $role = Role::Plain): self
    {
        return new self($role, ['type' => 'string', 'pattern' => self::ID_PATTERN, 'maxLength' => 80]);
    }

    /** A colour, or the name that it has in the house style. */
    public static function colour(): self
    {
        return new self(Role::Colour, ['type' => 'string', 'pattern' => '^(#([0-9a-fA-F]{6}|[0-9a-fA-F]{8})|@' . self::NAME_IN_STYLE . ')$']);
    }

    /** A colour itself. */
    public static function hex(): self
    {
        return new self(Role::Plain, ['type' => 'string', 'pattern' => '^#([0-9a-fA-F]{6}|[0-9a-fA-F]{8})$']);
    }

    /** A size of type on the canvas, px, or the name that it has in the house style. */
    public static function typeSize(): self
    {
        return new self(Role::TypePx, [], either: [self::number(1, 100_000, Role::TypePx), self::pattern(self::STYLE_NAME)]);
    }

    /** `{"ref": id}` of a layout, or the document itself. */
    public static function layout(): self
    {
        return new self(Role::Layout, ['anyOf' => [
            Fields::of(['ref' => self::id(Role::LayoutId)->required()])->schema(),
            ['$ref' => 'https://upper-pane.invalid/formats/layout.schema.json'],
        ]]);
    }

    public static function object(Fields $fields, Role $role = Role::Plain): self
    {
        return new self($role, [], fields: $fields);
    }

    public static function list(self $each, ?int $most = null, ?int $least = null): self
    {
        return new self(Role::Plain, ['type' => 'array'] + array_filter(['minItems' => $least, 'maxItems' => $most], is_int(...)), each: $each);
    }

    /**
     * An object whose names are ids.
     *
     * @param ?string $names pattern that they keep to
     */
    public static function map(self $each, ?int $most = null, ?string $names = null): self
    {
        return new self(Role::Plain, ['type' => 'object'] + ($most === null ? [] : ['maxProperties' => $most]) + ($names === null ? [] : ['propertyNames' => ['pattern' => $names]]), each: $each);
    }

    public static function either(self ...$either): self
    {
        return new self(Role::Plain, [], either: array_merge(...array_map(static fn (self $one): array => $one->schema === [] && $one->either !== [] ? $one->either : [$one], array_values($either))));
    }

    public function required(): self
    {
        return new self($this->role, $this->schema, true, $this->fields, $this->each, $this->either);
    }

    /** The same, or null. */
    public function orNull(): self
    {
        $type = is_string($this->schema['type'] ?? null) ? [$this->schema['type'], 'null'] : throw new \LogicException('Only a field of one type may be null as well.');

        return new self($this->role, ['type' => $type] + $this->schema, $this->isRequired, $this->fields, $this->each, $this->either);
    }

    /** As which the schema tells it, once for all places where it stands. */
    public function named(string $name): self
    {
        return new self($this->role, $this->schema + ['title' => $name], $this->isRequired, $this->fields, $this->each, $this->either);
    }

    /** What it is, in a few words, for the schema. */
    public function saying(string $description): self
    {
        return new self($this->role, $this->schema + ['description' => $description], $this->isRequired, $this->fields, $this->each, $this->either);
    }

    /** @return array<string, mixed> */
    public function schema(): array
    {
        return match (true) {
            $this->fields !== null => $this->fields->schema() + $this->schema,
            $this->each !== null => $this->schema + [$this->isMap() ? 'additionalProperties' : 'items' => $this->each->schema()],
            $this->either !== [] => ['anyOf' => array_map(static fn (self $one): array => $one->schema(), $this->either)] + $this->schema,
            default => $this->schema,
        };
    }

    public function isMap(): bool
    {
        return $this->each !== null && ($this->schema['type'] ?? null) === 'object';
    }

    /** Whether its value is written in braces, also where it is empty. */
    public function isObject(): bool
    {
        return $this->fields !== null || $this->isMap();
    }

    /**
     * A value with all that it is made of given to a function, innermost first.
     *
     * @param \Closure(mixed, Role, bool, string): mixed $change gets a value, what it means, whether it is an object, and its path
     * @param string $path JSON Pointer to the value
     */
    public function mapped(mixed $value, \Closure $change, string $path = ''): mixed
    {
        if (is_array($value)) {
            if ($this->fields !== null) {
                $value = $this->fields->mapped($value, $change, $path);
            } elseif ($this->each !== null) {
                foreach ($value as $name => $one) {
                    $value[$name] = $this->each->mapped($one, $change, $path . '/' . (is_int($name) ? $name : strtr($name, ['~' => '~0', '/' => '~1'])));
                }
            }
        }
        foreach ($this->either as $one) {
            if ($one->suits($value)) {
                return $one->mapped($value, $change, $path);
            }
        }

        return $change($value, $this->role, $this->isObject(), $path);
    }

    /** Whether all that it requires is there, and what can only be one value is that. */
    private function suits(mixed $value): bool
    {
        if ($this->fields === null) {
            return $this->each === null || (is_array($value) && ($value === [] || array_is_list($value) !== $this->isMap()));
        }
        $isSame = static fn (self $field, string|int $name): bool => !isset($field->schema['const']) || !is_array($value) || !isset($value[$name]) || $value[$name] === $field->schema['const'];

        return is_array($value) && array_diff_key(array_flip($this->fields->required()), $value) === []
            && array_filter($this->fields->all(), static fn (self $field, string|int $name): bool => !$isSame($field, $name), ARRAY_FILTER_USE_BOTH) === [];
    }
}
