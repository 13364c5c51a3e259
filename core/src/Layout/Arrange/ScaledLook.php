<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Arrange;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Ticker;

/** What of an element's look is px of the canvas, beside its rectangle: type, corners, outlines; it scales with what it lies in. */
final readonly class ScaledLook
{
    private const PX = ['radius_px', 'least_px'];
    private const SURROUNDS = ['outline' => ['px'], 'plate' => ['px'], 'shadow' => ['x_px', 'y_px', 'blur_px']];

    /**
     * @param array<string, mixed> $element as it stands in a document
     * @return array{array<string, mixed>, ?string} and what is worth saying of it
     */
    public static function of(array $element, float $factor): array
    {
        if ($factor === 1.0) {
            return [$element, null];
        }
        $before = is_array($element['style'] ?? null) ? $element['style']['size_px'] ?? null : null;
        $element = self::figures($element, self::PX, $factor);
        if (is_array($element['style'] ?? null)) {
            $element['style'] = self::style($element['style'], $factor);
        }
        if (is_array($element['caption'] ?? null) && is_array($element['caption']['style'] ?? null)) {
            $element['caption']['style'] = self::style($element['caption']['style'], $factor);
        }
        if (is_int($element['speed_px_s'] ?? null) || is_float($element['speed_px_s'] ?? null)) {
            // Half steps of a px at each refresh still run smoothly.
            $step = Ticker::REFRESH_HZ / 2;
            $element['speed_px_s'] = Box::figure(max($step, round($element['speed_px_s'] * $factor / $step) * $step));
        }
        $after = is_array($element['style'] ?? null) ? $element['style']['size_px'] ?? null : null;

        return [$element, is_numeric($before) && is_numeric($after) ? sprintf('type of %s px becomes %s px', $before, $after) : null];
    }

    /**
     * @param array<mixed> $style
     * @return array<mixed>
     */
    private static function style(array $style, float $factor): array
    {
        $style = self::figures($style, ['size_px'], $factor);
        foreach (self::SURROUNDS as $part => $fields) {
            if (is_array($style[$part] ?? null)) {
                $style[$part] = self::figures($style[$part], $fields, $factor);
            }
        }

        return $style;
    }

    /**
     * @template K of array-key
     * @param array<K, mixed> $fields
     * @param list<string> $names
     * @return array<K, mixed>
     */
    private static function figures(array $fields, array $names, float $factor): array
    {
        foreach ($fields as $name => $value) {
            if (in_array($name, $names, true) && (is_int($value) || is_float($value))) {
                $fields[$name] = Box::figure(max(in_array($name, ['size_px', 'least_px'], true) ? 1.0 : -INF, $value * $factor));
            }
        }

        return $fields;
    }
}
