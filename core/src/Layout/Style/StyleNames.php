<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Style;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Layout\Type\TextStyle;

/** The names of the house style in a part of a document, and that part with what they mean in their place. What stands in a layout within it is another canvas, and another matter. */
final readonly class StyleNames
{
    /** @param Styling $styling how names are worked out on the canvas of that part */
    private function __construct(private Styling $styling)
    {
    }

    /** Whether a value may have a name in it: a look that costs little, and may be wrong where words begin with @. */
    public static function mayStandIn(mixed $value): bool
    {
        if (is_string($value)) {
            return $value !== '' && $value[0] === '@';
        }
        foreach (is_array($value) ? $value : [] as $name => $one) {
            if ($name === 'mark' || ((is_string($one) || is_array($one)) && self::mayStandIn($one))) {
                return true;
            }
        }

        return false;
    }

    /**
     * The same with what its names mean.
     *
     * @param array<mixed> $value an object of these fields
     * @param string $path JSON Pointer to it
     * @return array<string, mixed>
     * @throws DocumentRefused where a name means nothing
     */
    public static function replaced(Fields $fields, array $value, Styling $styling, string $path): array
    {
        return $fields->mapped($value, (new self($styling))->meant(...), $path);
    }

    /**
     * The names in it.
     *
     * @param array<mixed> $value an object of these fields
     * @return list<array{sort: 'colours'|'faces'|'sizes'|'marks', name: string, path: string}> where each stands
     */
    public static function in(Fields $fields, array $value, string $path = ''): array
    {
        $found = [];
        $fields->mapped($value, static function (mixed $one, Role $role, bool $isObject, string $path) use (&$found): mixed {
            [$sort, $name] = self::named($one, $role);
            if ($name !== null) {
                $found[] = ['sort' => $sort, 'name' => $name, 'path' => $sort === 'marks' ? "$path/mark" : $path];
            }

            return $one;
        }, $path);

        return $found;
    }

    /** The name that a value is where it means this, as `colours/sea`; null where it is none. */
    public static function nameOf(mixed $value, Role $role): ?string
    {
        [$sort, $name] = self::named($value, $role);

        return $name === null ? null : "$sort/$name";
    }

    /** @return array{'colours'|'faces'|'sizes'|'marks', ?string} */
    private static function named(mixed $value, Role $role): array
    {
        return match (true) {
            $role === Role::Colour => ['colours', self::name($value)],
            $role === Role::Face => ['faces', self::name($value)],
            $role === Role::TypePx => ['sizes', self::name($value)],
            $role === Role::Media && is_array($value) && is_string($value['mark'] ?? null) => ['marks', $value['mark']],
            default => ['marks', null],
        };
    }

    /** The name that a value is; null where it is none. */
    public static function name(mixed $value): ?string
    {
        return is_string($value) && str_starts_with($value, '@') ? substr($value, 1) : null;
    }

    private function meant(mixed $value, Role $role, bool $isObject, string $path): mixed
    {
        return match ($role) {
            Role::Colour => ($name = self::name($value)) === null ? $value : $this->styling->colour($name, $path)->hex,
            Role::Media => is_array($value) && is_string($value['mark'] ?? null) ? $this->styling->mark($value['mark'], "$path/mark")->toArray() : $value,
            Role::Type => is_array($value) ? $this->type($value, $path) : $value,
            default => $value,
        };
    }

    /**
     * @param array<mixed> $style how words are set
     * @return array<mixed>
     */
    private function type(array $style, string $path): array
    {
        $face = self::name($style['family'] ?? null);
        if ($face !== null) {
            $face = $this->styling->face($face, "$path/family");
            $style = array_replace($style, ['family' => $face->family]) + ($face->weight === null ? [] : ['weight' => $face->weight]);
        }
        $size = self::name($style['size_px'] ?? null);
        if ($size === null) {
            return $style;
        }
        $family = is_string($style['family'] ?? null) ? $style['family'] : TextStyle::FAMILY;
        $weight = is_int($style['weight'] ?? null) ? $style['weight'] : TextStyle::WEIGHT;

        return array_replace($style, ['size_px' => $this->styling->sizePx($size, $family, $weight, "$path/size_px")]);
    }
}
