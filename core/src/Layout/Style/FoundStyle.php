<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Style;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Units\Decimal;

/** The house style that a layout has without saying so: its colours, faces and sizes, each with a name to begin with. */
final readonly class FoundStyle
{
    /** Nearer than this two colours can hardly be told apart (Colour::distance); common practice, no source. */
    private const NEAR = 0.04;

    /** Less colourful than this is a grey. */
    private const GREY = 0.03;

    /** Where on the circle of Oklab a hue begins, degrees; from memory. */
    private const HUES = ['red' => 10, 'orange' => 45, 'yellow' => 80, 'green' => 120, 'teal' => 170, 'blue' => 210, 'violet' => 285, 'pink' => 330];

    /** Of sizes, the largest first. */
    private const SIZES = ['title', 'head', 'line', 'body', 'small'];

    /**
     * @param array<string, string> $colours by name, those that are used most first
     * @param array<string, array{family: string}> $faces
     * @param array<string, array{px: int|float}> $sizes the largest first
     * @param list<array{string, string}> $near pairs of colours that are nearly equal
     */
    private function __construct(public array $colours, public array $faces, public array $sizes, public array $near)
    {
    }

    public static function in(Layout $layout): self
    {
        [$colours, $families, $sizes] = [[], [], []];
        $count = static function (mixed $value, Role $role) use (&$colours, &$families, &$sizes): mixed {
            if (is_string($value) && StyleNames::name($value) === null) {
                $role === Role::Colour ? $colours[strtolower($value)] = ($colours[strtolower($value)] ?? 0) + 1 : null;
                $role === Role::Face ? $families[$value] = ($families[$value] ?? 0) + 1 : null;
            } elseif ($role === Role::TypePx && (is_int($value) || is_float($value))) {
                $sizes[Decimal::text($value)] = $value;
            }

            return $value;
        };
        Layout::fields()->mapped(array_diff_key($layout->toArray(), ['elements' => 1]), $count);
        foreach ($layout->elements as $element) {
            $element::fields()->mapped($element->toArray(), $count);
        }
        arsort($colours);
        arsort($families);
        rsort($sizes);
        $named = [];
        foreach (array_keys($colours) as $hex) {
            $named[self::free(self::called(Colour::of((string) $hex)), $named)] = (string) $hex;
        }
        [$near, $names] = [[], array_keys($named)];
        foreach ($names as $place => $name) {
            foreach (array_slice($names, $place + 1) as $other) {
                if (Colour::of($named[$name])->over(Colour::black())->distance(Colour::of($named[$other])->over(Colour::black())) < self::NEAR) {
                    $near[] = [$name, $other];
                }
            }
        }
        $faces = [];
        foreach (array_keys($families) as $place => $family) {
            $faces[$place === 0 ? 'text' : ($place === 1 ? 'head' : 'face-' . ($place + 1))] = ['family' => (string) $family];
        }
        $called = [];
        foreach ($sizes as $place => $size) {
            $called[self::SIZES[$place] ?? 'size-' . ($place + 1)] = ['px' => $size];
        }

        return new self($named, $faces, $called, $near);
    }

    /** @return array{colours: object, faces: object, sizes: object} as they stand in a style */
    public function fields(): array
    {
        return ['colours' => (object) $this->colours, 'faces' => (object) $this->faces, 'sizes' => (object) $this->sizes];
    }

    private static function called(Colour $colour): string
    {
        [$light, $red, $yellow] = $colour->oklab();
        if (hypot($red, $yellow) < self::GREY) {
            return match (true) {
                $light < 0.25 => 'black',
                $light > 0.95 => 'white',
                default => $light < 0.6 ? 'dark-grey' : 'grey',
            };
        }
        $hue = fmod(rad2deg(atan2($yellow, $red)) + 360, 360);
        $name = 'pink';
        foreach (self::HUES as $one => $from) {
            $name = $hue >= $from ? $one : $name;
        }

        return match (true) {
            $light < 0.45 => "dark-$name",
            $light > 0.85 => "pale-$name",
            default => $name,
        };
    }

    /** @param array<string, mixed> $taken by name */
    private static function free(string $name, array $taken): string
    {
        for ($n = 2, $free = $name; isset($taken[$free]); $n++) {
            $free = "$name-$n";
        }

        return $free;
    }
}
