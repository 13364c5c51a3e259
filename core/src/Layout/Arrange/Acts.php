<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Arrange;

use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Geometry\Tracks;
use UpperPane\Core\Layout\Division\Recipe;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Layout;

/** What hands do to a layout, or to one of its variants, as it is said from outside: `{"do": name, ...}`. A new act is a line in the table. */
final readonly class Acts
{
    private const MOST_ELEMENTS = 1_000;

    /** @var array<string, list<string>> the fields of each act */
    private const FIELDS = [
        'solve' => ['raster'],
        'scale' => ['raster'],
        'start' => ['recipe'],
        'write' => ['recipe'],
        'retell' => [],
        'follow' => [],
        'shares' => [],
        'split' => ['zone', 'into', 'tracks'],
        'join' => ['zones'],
        'border' => ['between', 'from', 'along', 'to'],
        'equalise' => ['zones'],
        'swap' => ['zones'],
        'align' => ['zones', 'edge'],
        'distribute' => ['zones', 'way'],
        'repeat' => ['zones', 'columns', 'rows', 'gap_x', 'gap_y'],
        'begin' => ['kind', 'rect', 'fields'],
        'insert' => ['elements', 'dx', 'dy'],
        'remove' => ['elements'],
        'restack' => ['elements', 'by'],
        'cure' => ['fix'],
        'vary' => ['raster', 'name'],
        'drop' => ['variant'],
    ];

    /**
     * @param ?string $variant of the layout in which it is done; null for the layout itself
     * @throws Refused
     */
    public static function done(Layout $layout, ?string $variant, Node $act): Arranged
    {
        $name = $act->act(self::FIELDS);
        if ($name === 'vary') {
            return self::varied($layout, Size::fromNode($act->field('raster')), $act->optional('name')?->id());
        }
        if ($name === 'drop') {
            return new Arranged($layout->withoutVariant($act->field('variant')->id()), null, [], []);
        }
        $arranged = self::act(Arrangement::of($layout->seenAs($variant), $layout->ids()), $name, $act);

        return new Arranged($layout->putBack($variant, $arranged->layout), $variant, $arranged->said, $arranged->chosen);
    }

    /** The same content for another raster: its recipe solved there, or all of it scaled; one that is there already is taken. */
    private static function varied(Layout $layout, Size $raster, ?string $name): Arranged
    {
        $known = array_filter([null, ...array_keys($layout->variants)], static fn (int|string|null $id): bool => ($id === null ? $layout : $layout->variants[$id])->canvas->equals($raster));
        if ($known !== []) {
            $id = array_values($known)[0];

            return new Arranged($layout, $id === null ? null : (string) $id, [sprintf('"%s" has %s px already.', $layout->name, $raster)], null);
        }
        $seen = Arrangement::of($layout->seenAs(null));
        $id = $layout->freeVariant($name ?? ($raster->isSquare() ? 'square' : ($raster->isPortrait() ? 'portrait' : 'landscape')));

        return new Arranged($layout->withVariant($id, ($layout->recipe === null ? $seen->scaledTo($raster) : $seen->solvedFor($raster))->layout), $id, [], []);
    }

    /** @throws Refused */
    private static function act(Arrangement $arrangement, string $name, Node $act): Arrangement
    {
        $zones = static fn (int $least): array => self::ids($act->field('zones'), $least);

        return match ($name) {
            'solve' => $arrangement->solvedFor(Size::fromNode($act->field('raster'))),
            'scale' => $arrangement->scaledTo(Size::fromNode($act->field('raster'))),
            'start' => $arrangement->startedWith(Recipe::fromNode($act->field('recipe'))),
            'write' => self::written($arrangement, $act->field('recipe')),
            'retell' => $arrangement->retold(),
            'follow' => $arrangement->following(),
            'shares' => $arrangement->inShares(),
            'split' => $arrangement->split($act->field('zone')->id(), self::side($act->field('into')), Tracks::parse($act->field('tracks')->text(1, 2000), '/tracks')),
            'join' => $arrangement->joined($zones(2)),
            'equalise' => $arrangement->equalised($zones(2)),
            'align' => $arrangement->aligned($zones(2), self::edge($act->field('edge'))),
            'distribute' => $arrangement->distributed($zones(3), $act->field('way')->oneOf('across', 'down') === 'across'),
            'repeat' => $arrangement->repeated(
                $zones(1),
                $act->field('columns')->int(1, 500),
                $act->field('rows')->int(1, 500),
                $act->field('gap_x')->int(-Size::LONGEST, Size::LONGEST, 'px'),
                $act->field('gap_y')->int(-Size::LONGEST, Size::LONGEST, 'px'),
            ),
            'swap' => $arrangement->swapped($zones(2)[0], $zones(2)[1]),
            'begin' => $arrangement->begun($act->field('kind'), Rect::fromNode($act->field('rect')), $act->optional('fields')?->fields() ?? []),
            'insert' => $arrangement->inserted(
                array_map(Kinds::read(...), $act->field('elements')->items(self::MOST_ELEMENTS)),
                $act->field('dx')->int(-Size::LONGEST, Size::LONGEST, 'px'),
                $act->field('dy')->int(-Size::LONGEST, Size::LONGEST, 'px'),
            ),
            'remove' => $arrangement->removed(self::ids($act->field('elements'), 0)),
            'restack' => $arrangement->restacked(self::ids($act->field('elements'), 0), $act->field('by')->int(-Layout::MOST_ELEMENTS, Layout::MOST_ELEMENTS)),
            'cure' => $arrangement->cured(Fix::fromNode($act->field('fix'))),
            default => $arrangement->withBorder(self::side($act->field('between')), $act->field('from')->int(), $act->field('along')->int(), $act->field('to')->int()),
        };
    }

    /** @throws Refused */
    private static function written(Arrangement $arrangement, Node $recipe): Arrangement
    {
        $recipe->object('columns', 'rows', 'gap', 'margin');

        return $arrangement->written(
            Tracks::parse($recipe->field('columns')->text(1, 2000), '/recipe/columns'),
            Tracks::parse($recipe->field('rows')->text(1, 2000), '/recipe/rows'),
            $recipe->field('gap')->int(0, Size::LONGEST, 'px'),
            $recipe->field('margin')->int(0, Size::LONGEST, 'px'),
        );
    }

    /** @return 'columns'|'rows' */
    private static function side(Node $node): string
    {
        return $node->oneOf('columns', 'rows') === 'columns' ? 'columns' : 'rows';
    }

    /** @return 'left'|'centre'|'right'|'top'|'middle'|'bottom' */
    private static function edge(Node $node): string
    {
        $edge = $node->oneOf('left', 'centre', 'right', 'top', 'middle', 'bottom');

        return match ($edge) {
            'left', 'centre', 'right', 'top', 'middle' => $edge,
            default => 'bottom',
        };
    }

    /** @return list<string> */
    private static function ids(Node $node, int $least): array
    {
        $ids = array_map(static fn (Node $id): string => $id->id(), $node->items(Layout::MOST_ELEMENTS));

        return count($ids) >= $least ? $ids : throw $node->refused(Reason::ValueRange, sprintf('names %d zones; at least %d are wanted.', count($ids), $least));
    }
}
