<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Arrange;

use UpperPane\Core\Geometry\Rect;

/**
 * A line along which zones meet: all that end at it, and all that begin there, move with it.
 *
 * `columns` is an upright line at an x, `rows` a level one at a y. Behind the line lies the gap, if there is one.
 */
final readonly class Border
{
    /**
     * @param 'columns'|'rows' $between
     * @param int $at px where what lies before it ends
     * @param int $gap px between what lies before and behind
     * @param list<string> $before ids of the zones that end at it
     * @param list<string> $behind ids of the zones that begin at it, or past the gap
     * @param array{from: int, to: int} $span px along the line
     * @param int $least px, the least `at` that leaves each zone 1 px
     * @param int $most px, the most
     */
    private function __construct(
        public string $between,
        public int $at,
        public int $gap,
        public array $before,
        public array $behind,
        public array $span,
        public int $least,
        public int $most,
    ) {
    }

    /**
     * Every border between these rectangles.
     *
     * @param array<string, Rect> $rects by id
     * @param int $gap px that may lie between two neighbours
     * @return list<self>
     */
    public static function all(array $rects, int $gap): array
    {
        return [...self::along('columns', $rects, $gap), ...self::along('rows', $rects, $gap)];
    }

    /**
     * The rectangles once the border lies elsewhere.
     *
     * @param array<string, Rect> $rects by id
     * @return array<string, Rect> of those that change
     */
    public function movedTo(int $at, array $rects): array
    {
        $by = $at - $this->at;
        $moved = [];
        foreach ($this->before as $id) {
            $r = $rects[$id];
            $moved[$id] = $this->between === 'columns' ? Rect::at($r->x, $r->y, $r->width + $by, $r->height) : Rect::at($r->x, $r->y, $r->width, $r->height + $by);
        }
        foreach ($this->behind as $id) {
            $r = $rects[$id];
            $moved[$id] = $this->between === 'columns' ? Rect::at($r->x + $by, $r->y, $r->width - $by, $r->height) : Rect::at($r->x, $r->y + $by, $r->width, $r->height - $by);
        }

        return $moved;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'between' => $this->between,
            'at' => $this->at,
            'gap' => $this->gap,
            'before' => $this->before,
            'behind' => $this->behind,
            'from' => $this->span['from'],
            'to' => $this->span['to'],
            'least' => $this->least,
            'most' => $this->most,
        ];
    }

    /**
     * @param 'columns'|'rows' $between
     * @param array<string, Rect> $rects
     * @return list<self>
     */
    private static function along(string $between, array $rects, int $gap): array
    {
        $spans = array_map(static fn (Rect $r): array => $between === 'columns'
            ? [$r->x, $r->right(), $r->y, $r->bottom()]
            : [$r->y, $r->bottom(), $r->x, $r->right()], $rects);
        /** @var array<int, array{before?: list<string>, behind?: list<string>}> $lines */
        $lines = [];
        foreach ($spans as $id => [$from, $to]) {
            $lines[$to]['before'][] = (string) $id;
            $lines[$from - $gap]['behind'][] = (string) $id;
        }
        ksort($lines);
        $borders = [];
        foreach ($lines as $at => $line) {
            foreach (self::pieces($line['before'] ?? [], $line['behind'] ?? [], $spans) as [$before, $behind, $span]) {
                $borders[] = new self(
                    $between,
                    $at,
                    $gap,
                    $before,
                    $behind,
                    $span,
                    max(array_map(static fn (string $id): int => $spans[$id][0] + 1, $before)),
                    min(array_map(static fn (string $id): int => $spans[$id][1] - 1 - $gap, $behind)),
                );
            }
        }

        return $borders;
    }

    /**
     * The pieces of a line that can move alone: zones that face one another across it hang together.
     *
     * @param list<string> $before
     * @param list<string> $behind
     * @param array<string, array{int, int, int, int}> $spans
     * @return list<array{non-empty-list<string>, non-empty-list<string>, array{from: int, to: int}}>
     */
    private static function pieces(array $before, array $behind, array $spans): array
    {
        $along = [];
        foreach (['before' => $before, 'behind' => $behind] as $side => $ids) {
            foreach ($ids as $id) {
                $along[] = [$spans[$id][2], $spans[$id][3], $side, $id];
            }
        }
        sort($along);
        [$pieces, $open] = [[], null];
        foreach ($along as [$from, $to, $side, $id]) {
            if ($open === null || $from >= $open['to']) {
                $open === null ?: $pieces[] = $open;
                $open = ['before' => [], 'behind' => [], 'from' => $from, 'to' => $to];
            }
            $open[$side][] = $id;
            $open['to'] = max($open['to'], $to);
        }
        $open === null ?: $pieces[] = $open;
        $found = [];
        foreach ($pieces as $piece) {
            if ($piece['before'] !== [] && $piece['behind'] !== []) {
                $found[] = [$piece['before'], $piece['behind'], ['from' => $piece['from'], 'to' => $piece['to']]];
            }
        }

        return $found;
    }
}
