<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Arrange;

use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Layout;

/** The elements of a layout document that has been read once and is known to be right: each act gives a new list. */
final readonly class Content
{
    /** @param list<array<string, mixed>> $elements */
    private function __construct(private array $elements)
    {
    }

    /** @param array<string, mixed> $document */
    public static function of(array $document): self
    {
        /** @var list<array<string, mixed>> $elements a document is read before it is arranged */
        $elements = $document['elements'];

        return new self($elements);
    }

    /**
     * @param array<string, mixed> $document
     * @return array<string, mixed> with these elements
     */
    public function document(array $document): array
    {
        $document = array_replace($document, ['elements' => $this->elements]);
        if (is_array($document['variants'] ?? null)) {
            // What is no more is no more in any variant.
            $ids = array_flip(array_map(self::idOf(...), $this->elements));
            $document['variants'] = array_map(static fn (mixed $variant): mixed => is_array($variant) && is_array($variant['places'] ?? null)
                ? array_replace($variant, ['places' => array_intersect_key($variant['places'], $ids)])
                : $variant, $document['variants']);
        }

        return $document;
    }

    /** An id that no element has: the name, or the name with the first free number. */
    public function freeId(string $name): string
    {
        $taken = array_column($this->elements, 'id');
        $stem = rtrim($name, '0123456789') ?: $name;
        for ($n = 2, $id = $name; in_array($id, $taken, true); $n++) {
            $id = $stem . $n;
        }

        return $id;
    }

    /** @param array<string, mixed> $element on top */
    public function with(array $element): self
    {
        return new self([...$this->elements, $element]);
    }

    /** @param array<string, mixed> $element just above another */
    public function after(string $id, array $element): self
    {
        $index = array_search($id, array_column($this->elements, 'id'), true);
        $elements = $this->elements;
        array_splice($elements, (int) $index + 1, 0, [$element]);

        return new self($elements);
    }

    /**
     * Copies of elements on top, moved by so many px. What belonged together does so again, among the copies.
     *
     * @param list<string> $ids
     */
    public function copied(array $ids, int $dx, int $dy): self
    {
        $names = [];
        $taken = $this;
        foreach (array_intersect(array_map(self::idOf(...), $this->elements), $ids) as $id) {
            $names[$id] = $taken->freeId($id);
            $taken = $taken->with(['id' => $names[$id]]);
        }
        $elements = $this->elements;
        foreach ($this->elements as $element) {
            $rect = is_array($element['rect'] ?? null) ? $element['rect'] : [];
            if (!isset($names[self::idOf($element)]) || !is_int($rect['x'] ?? null) || !is_int($rect['y'] ?? null)) {
                continue;
            }
            $element = array_replace($element, ['id' => $names[self::idOf($element)], 'rect' => array_replace($rect, ['x' => $rect['x'] + $dx, 'y' => $rect['y'] + $dy])]);
            if (is_string($element['follows'] ?? null)) {
                $element['follows'] = $names[$element['follows']] ?? $element['follows'];
            }
            if (is_array($element['progress'] ?? null) && is_string($element['progress']['zone'] ?? null)) {
                $element['progress']['zone'] = $names[$element['progress']['zone']] ?? $element['progress']['zone'];
            }
            if (is_string($element['group'] ?? null)) {
                $element['group'] = $this->freeGroup($element['group']);
            }
            $elements[] = $element;
        }

        return new self($elements);
    }

    private function freeGroup(string $name): string
    {
        $taken = array_column($this->elements, 'group');
        $stem = rtrim($name, '0123456789') ?: $name;
        for ($n = 2, $group = $name; in_array($group, $taken, true); $n++) {
            $group = $stem . $n;
        }

        return $group;
    }

    /** @param array<string, Rect> $rects */
    public function placed(array $rects): self
    {
        return new self(array_map(static function (array $element) use ($rects): array {
            $rect = $rects[self::idOf($element)] ?? null;

            return $rect === null ? $element : array_replace($element, ['rect' => $rect->toArray()]);
        }, $this->elements));
    }

    /**
     * All elements on another canvas, or in another division of it.
     *
     * @param array<string, Rect> $rects of those that are given a place
     * @param ?Scaling $scaling of all others, and of type and corners; null leaves them as they are
     * @return array{self, list<string>} and what changed, in sentences
     */
    public function laid(Layout $layout, array $rects, ?Scaling $scaling): array
    {
        [$elements, $said] = [[], []];
        foreach ($this->elements as $element) {
            $id = self::idOf($element);
            $known = $layout->element($id);
            $rect = $rects[$id] ?? ($known === null ? null : $scaling?->rect($known));
            if ($known === null || $rect === null) {
                $elements[] = $element;
                continue;
            }
            $words = $known->rect()->size()->equals($rect->size()) ? [] : [sprintf('%s becomes %s px', $known->rect()->size(), $rect->size())];
            $element = array_replace($element, ['rect' => $rect->toArray()]);
            [$element, $type] = ScaledLook::of($element, $scaling?->factor($known) ?? 1.0);
            $words = $type === null ? $words : [...$words, $type];
            $elements[] = $element;
            if ($words !== []) {
                $said[] = sprintf('"%s": %s.', $id, implode(', ', $words));
            }
        }

        return [new self($elements), $said];
    }

    /**
     * Zones poured into another one: their items follow its own, they themselves go; who followed one of them follows it.
     *
     * @param list<string> $zones
     * @return array{self, list<string>} and what could not come along
     */
    public function poured(array $zones, string $into): array
    {
        $byId = array_column($this->elements, null, 'id');
        [$items, $said] = [self::itemsOf($byId[$into]), []];
        $target = $byId[$into];
        foreach ($zones as $zone) {
            $more = self::itemsOf($byId[$zone]);
            if ($items === [] && ($more === null || $more !== [])) {
                // Nothing plays there yet: it takes over what plays here, list and all.
                $target['playlist'] = $byId[$zone]['playlist'] ?? ['items' => []];
                $items = $more;
            } elseif ($items === null || $more === null) {
                $more === [] ?: $said[] = sprintf('What played in "%s" is not in the joined zone: a playlist of its own does not mix with others.', $zone);
            } else {
                $items = self::appended($items, $more);
                $target['playlist'] = ['items' => $items];
            }
        }
        $elements = [];
        foreach ($this->elements as $element) {
            $id = self::idOf($element);
            if (in_array($id, $zones, true)) {
                continue;
            }
            $element = $id === $into ? $target : $element;
            if (in_array($element['follows'] ?? null, $zones, true)) {
                $element['follows'] = $into;
            }
            if (($element['follows'] ?? null) === $id || ($id === $into && isset($element['follows']))) {
                unset($element['follows']);
            }
            $elements[] = $element;
        }

        return [new self($elements), $said];
    }

    /** @param array<string, mixed> $element */
    private static function idOf(array $element): string
    {
        return is_string($element['id'] ?? null) ? $element['id'] : '';
    }

    /**
     * @param array<string, mixed> $zone
     * @return ?list<array<string, mixed>> null where the playlist is one by itself
     */
    private static function itemsOf(array $zone): ?array
    {
        $playlist = is_array($zone['playlist'] ?? null) ? $zone['playlist'] : [];
        /** @var ?list<array<string, mixed>> $items */
        $items = array_keys($playlist) === ['items'] ? $playlist['items'] : null;

        return $items;
    }

    /**
     * @param list<array<string, mixed>> $items
     * @param list<array<string, mixed>> $more get ids of their own where theirs are taken
     * @return list<array<string, mixed>>
     */
    private static function appended(array $items, array $more): array
    {
        foreach ($more as $item) {
            $taken = array_column($items, 'id');
            for ($n = count($items) + 1; in_array($item['id'] ?? '', $taken, true); $n++) {
                $item['id'] = "i$n";
            }
            $items[] = $item;
        }

        return $items;
    }
}
