<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** The fields of a kind of document: which there are, what each means, and what follows from that for its schema, for copies and for searches. */
final readonly class Fields
{
    /**
     * @param array<string, Field> $all
     * @param array<string, mixed> $rules further keywords of the schema
     */
    private function __construct(private array $all, private array $rules = [])
    {
    }

    /** @param array<string, Field> $all */
    public static function of(array $all): self
    {
        return new self($all);
    }

    /** @param array<string, Field> $more */
    public function and(array $more): self
    {
        return new self($this->all + $more, $this->rules);
    }

    /** @param array<string, mixed> $rules keywords of JSON Schema that say what no field says alone */
    public function where(array $rules): self
    {
        return new self($this->all, $rules + $this->rules);
    }

    /** As which the schema tells it, once for all places where it stands. */
    public function named(string $name): self
    {
        return $this->where(['title' => $name]);
    }

    /** @return array<string, Field> */
    public function all(): array
    {
        return $this->all;
    }

    /** One of them alone; none where there is none of that name. */
    public function only(string $name): self
    {
        return new self(array_intersect_key($this->all, [$name => true]));
    }

    /** @return list<string> */
    public function names(): array
    {
        return array_map(strval(...), array_keys($this->all));
    }

    /** @return list<string> */
    public function required(): array
    {
        return array_map(strval(...), array_keys(array_filter($this->all, static fn (Field $field): bool => $field->isRequired)));
    }

    /** @return array<string, mixed> JSON Schema 2020-12 */
    public function schema(): array
    {
        return ['type' => 'object', 'properties' => array_map(static fn (Field $field): array => $field->schema(), $this->all)]
            + ($this->required() === [] ? [] : ['required' => $this->required()])
            + ['additionalProperties' => false] + $this->rules;
    }

    /**
     * An object with all that it is made of given to a function, innermost first. Fields that are not known stay as they are.
     *
     * @param array<mixed> $value
     * @param \Closure(mixed, Role, bool, string): mixed $change gets a value, what it means, whether it is an object, and its path
     * @param string $path JSON Pointer to the object
     * @return array<string, mixed>
     */
    public function mapped(array $value, \Closure $change, string $path = ''): array
    {
        $mapped = [];
        foreach ($value as $name => $one) {
            $mapped[(string) $name] = isset($this->all[$name]) ? $this->all[$name]->mapped($one, $change, "$path/$name") : $one;
        }

        return $mapped;
    }

    /**
     * Where values that mean this may stand, in objects within objects.
     *
     * @return list<non-empty-list<string>> names, from the outside in
     */
    public function waysTo(Role $role): array
    {
        $ways = [];
        foreach ($this->all as $name => $field) {
            if ($field->role === $role) {
                $ways[] = [(string) $name];
            }
            foreach ($field->fields?->waysTo($role) ?? [] as $way) {
                $ways[] = [(string) $name, ...$way];
            }
        }

        return $ways;
    }

    /**
     * Every value that means one of these, in the order in which they stand.
     *
     * @param array<mixed> $value
     * @return list<mixed>
     */
    public function collected(array $value, Role ...$roles): array
    {
        $found = [];
        $this->mapped($value, static function (mixed $one, Role $role) use (&$found, $roles): mixed {
            if (in_array($role, $roles, true)) {
                $found[] = $one;
            }

            return $one;
        });

        return $found;
    }

    /**
     * As JSON tells it: an object without fields is written in braces, which an empty array of PHP is not.
     *
     * @param array<mixed> $value
     * @return array<string, mixed>
     */
    public function written(array $value): array
    {
        return $this->mapped($value, static fn (mixed $one, Role $role, bool $isObject): mixed => $isObject && $one === [] ? new \stdClass() : $one);
    }
}
