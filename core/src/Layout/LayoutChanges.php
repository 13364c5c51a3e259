<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Layout\Kind\Compares;
use UpperPane\Core\Layout\Kind\Element;

/** What a viewer would see change from one composed layout to another, in words. */
final readonly class LayoutChanges
{
    /** @return list<string> empty where nothing changes */
    public static function between(Composed $old, Composed $new): array
    {
        [$old, $new] = [$old->visible(), $new->visible()];
        $words = [];
        if ($old->id !== $new->id) {
            $words[] = sprintf('"%s" takes the place of "%s".', $new->name, $old->name);
        }
        if (!$old->canvas->equals($new->canvas)) {
            $words[] = sprintf('Canvas: %s px, was %s px.', $new->canvas, $old->canvas);
        }
        if ($old->background->hex !== $new->background->hex) {
            $words[] = sprintf('Background: %s, was %s.', $new->background->hex, $old->background->hex);
        }
        $before = self::byId($old);
        $after = self::byId($new);
        foreach ($after as $id => $element) {
            $words = [...$words, ...(isset($before[$id]) && $before[$id]->kind() === $element->kind()
                ? self::changed($before[$id], $element)
                : [sprintf('Added: %s "%s".', $element->kind(), $element->id())])];
        }
        foreach ($before as $id => $element) {
            if (!isset($after[$id]) || $after[$id]->kind() !== $element->kind()) {
                $words[] = sprintf('Removed: %s "%s".', $element->kind(), $element->id());
            }
        }
        if (array_keys(array_intersect_key($before, $after)) !== array_keys(array_intersect_key($after, $before))) {
            $words[] = 'The stacking order changes.';
        }

        return $words;
    }

    /** @return list<string> the same, said of a layout that is seen within another */
    public static function within(Composed $old, Composed $new): array
    {
        return $old === $new ? [] : array_map(static fn (string $word): string => sprintf('In "%s": %s', $new->name, $word), self::between($old, $new));
    }

    /** @return list<string> */
    private static function changed(Element $old, Element $new): array
    {
        $words = [];
        if (!$old->rect()->equals($new->rect())) {
            [$r, $s] = [$new->rect(), $old->rect()];
            $words[] = sprintf('Moved: "%s" to %d, %d with %s px, was %d, %d with %s px.', $new->id(), $r->x, $r->y, $r->size(), $s->x, $s->y, $s->size());
        }
        $own = $new instanceof Compares ? $new->changesFrom($old) : [];
        if ($own === [] && self::look($old) != self::look($new)) {
            $own = [sprintf('"%s" looks different.', $new->id())];
        }

        return [...$words, ...$own];
    }

    /** @return array<string, mixed> without what no viewer sees */
    private static function look(Element $element): array
    {
        return array_diff_key($element->toArray(), ['rect' => 1, 'name' => 1, 'locked' => 1, 'group' => 1, 'hidden' => 1, 'playlist' => 1, 'standby' => 1]);
    }

    /** @return array<string, Element> */
    private static function byId(Composed $layout): array
    {
        $elements = [];
        foreach ($layout->elements as $element) {
            $elements[$element->id()] = $element;
        }

        return $elements;
    }
}
