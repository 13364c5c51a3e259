<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Arrange;

use UpperPane\Core\Document\ActRefused;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Geometry\Tracks;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Division\Recipe;
use UpperPane\Core\Layout\Division\Sums;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Kind\Zone\Zone;
use UpperPane\Core\Layout\Layout;

/**
 * A layout and what a designer does with the division of its canvas. Each act gives a new one: whole px, the recipe true, nothing lost.
 */
final readonly class Arrangement
{
    private const MOST_REPEATED = 500;

    /**
     * @param list<string> $said what changed beside what was asked for, in sentences
     * @param list<string> $taken ids that nothing new may have, beside those in the layout
     * @param ?list<string> $chosen ids of what a hand holds now; null for what it held before
     */
    private function __construct(public Layout $layout, public array $said, private array $taken = [], public ?array $chosen = null)
    {
    }

    /** @param list<string> $taken ids that nothing new may have, beside those in the layout: of what a variant does not show */
    public static function of(Layout $layout, array $taken = []): self
    {
        return new self($layout, [], $taken);
    }

    /** @return list<Border> that can be moved */
    public static function borders(Composed $layout): array
    {
        return Border::all(self::dividing($layout->elements, array_values($layout->zones), $layout->recipe), $layout->recipe->gap ?? 0);
    }

    /**
     * The layout for another raster: its recipe solved there, all else scaled with the zone it lies in.
     *
     * @throws DocumentRefused `recipe.missing`, or `tracks.too-long` at /recipe/rows or /recipe/columns
     */
    public function solvedFor(Size $raster): self
    {
        $recipe = $this->recipe();

        return $this->laid($recipe->solve($raster, '/recipe'), $raster, $recipe, scaled: true);
    }

    /** The layout for another raster with everything scaled as the sides of the canvas are, whatever the recipe says. */
    public function scaledTo(Size $raster): self
    {
        return $this->laid([], $raster, $this->layout->recipe, scaled: true)->following();
    }

    /**
     * Another recipe for the canvas as it is: what its areas name moves there, areas that name nothing become zones.
     *
     * @throws DocumentRefused
     */
    public function divided(Recipe $recipe): self
    {
        $rects = $recipe->solve($this->layout->canvas, '/recipe');
        $next = $this->layout;
        $made = [];
        foreach ($rects as $name => $rect) {
            if ($this->layout->element((string) $name) === null) {
                $next = $next->added(Zone::empty((string) $name, $rect));
                $made[] = (string) $name;
            }
        }

        return $this->next($next, $made === [] ? [] : [sprintf('New: %s.', self::names($made))])
            ->laid($rects, $this->layout->canvas, $recipe, scaled: false);
    }

    /**
     * The recipe with other tracks, gap or margin. A column or row more is a new zone along the whole side; of one less, what lay there alone stays where it was.
     *
     * @throws DocumentRefused
     */
    public function written(Tracks $columns, Tracks $rows, int $gap, int $margin): self
    {
        $recipe = $this->layout->recipe ?? Recipe::describing($this->rectsThatDivide(), $this->layout->canvas)
            ?? throw ActRefused::because(Reason::RecipeNone, 'No columns and rows divide the canvas as the zones do; choose a starting division.', '/recipe');
        [$cells, $gone] = $recipe->cellsOf(count($columns->tracks), count($rows->tracks), fn (string $name): string => $this->layout->freeId($name, $this->taken));
        $divided = $this->divided(Recipe::of($columns, $rows, $gap, $margin, $cells));

        return $gone === [] ? $divided : $divided->saying(sprintf('%s stayed: the recipe has no area for it any more.', self::names($gone)));
    }

    /**
     * A starting division: zones that are there take its areas, first those of the same name, then the others in reading order.
     *
     * @throws DocumentRefused
     */
    public function startedWith(Recipe $division): self
    {
        $zones = $this->rectsThatDivide();
        uasort($zones, static fn (Rect $a, Rect $b): int => [$a->y, $a->x] <=> [$b->y, $b->x]);
        $left = array_map(strval(...), array_keys(array_diff_key($zones, $division->areas)));
        $names = [];
        foreach (array_keys($division->areas) as $area) {
            $area = (string) $area;
            if (!isset($zones[$area]) && $left !== []) {
                $names[$area] = array_shift($left);
            } elseif (!isset($zones[$area]) && $this->layout->element($area) !== null) {
                $names[$area] = $this->layout->freeId($area, $this->taken);
            }
        }
        $divided = $this->divided($division->renamed($names));

        return $left === [] ? $divided : $divided->saying(sprintf('%s stayed where it was: the division has no area for it.', self::names($left)));
    }

    /**
     * A zone in several, beside or below one another; the first keeps what is in it.
     *
     * @param 'columns'|'rows' $into
     * @throws DocumentRefused
     */
    public function split(string $zone, string $into, Tracks $tracks): self
    {
        $rect = $this->zone($zone)->rect();
        $parts = $tracks->solve($into === 'columns' ? $rect->width : $rect->height, $this->layout->recipe->gap ?? 0, '/tracks');
        $next = $this->layout;
        $previous = $zone;
        foreach ($parts as $index => ['start' => $start, 'size' => $size]) {
            if ($size < 1) {
                throw DocumentRefused::because(Reason::TracksTooLong, sprintf('"%s" leaves part %d of "%s" no px.', $tracks->written(), $index + 1, $zone), '/tracks');
            }
            $part = $into === 'columns' ? Rect::at($rect->x + $start, $rect->y, $size, $rect->height) : Rect::at($rect->x, $rect->y + $start, $rect->width, $size);
            if ($index === 0) {
                $next = $next->placed([$zone => $part]);
                continue;
            }
            $id = $next->freeId($zone, $this->taken);
            $next = $next->added(Zone::empty($id, $part), $previous);
            $previous = $id;
        }

        return $this->next($next, [])->following();
    }

    /**
     * Zones that lie side by side as one; the first keeps its place in the stack, and what played in the others comes after what plays in it.
     *
     * @param list<string> $zones
     * @throws DocumentRefused `zone.apart` unless together they are a rectangle
     */
    public function joined(array $zones): self
    {
        $rects = array_map(fn (string $id): Rect => $this->zone($id)->rect(), array_values(array_unique($zones)));
        if (count($rects) < 2) {
            throw ActRefused::because(Reason::ZoneUnknown, 'Two zones or more can be joined.', '/zones');
        }
        $whole = self::around($rects);
        $gap = $this->layout->recipe->gap ?? 0;
        // With the gap behind it, each zone is a tile; tiles that fill the rectangle are joined without a hole.
        $tiles = array_sum(array_map(static fn (Rect $r): int => ($r->width + $gap) * ($r->height + $gap), $rects));
        foreach ($this->zones() as $id => $other) {
            if (!in_array((string) $id, $zones, true) && $other->rect()->intersection($whole) !== null && !$whole->contains($other->rect())) {
                throw ActRefused::because(Reason::ZoneApart, sprintf('"%s" would lie under the joined zone.', $id), '/zones');
            }
        }
        if ($tiles !== ($whole->width + $gap) * ($whole->height + $gap)) {
            throw ActRefused::because(Reason::ZoneApart, sprintf('%s are no rectangle together; neighbours of the same height, or of the same width, are joined.', self::names($zones)), '/zones');
        }
        [$poured, $said] = Pouring::of($this->layout, array_slice($zones, 1), $zones[0]);

        return $this->next($poured->placed([$zones[0] => $whole]), $said)->following();
    }

    /**
     * A border elsewhere, with all zones that share it.
     *
     * @param 'columns'|'rows' $between
     * @param int $from px where it lies
     * @param int $along px along it, to tell pieces of one line apart
     * @param int $to px where it is to lie
     * @throws DocumentRefused
     */
    public function withBorder(string $between, int $from, int $along, int $to): self
    {
        foreach (Border::all($this->rectsThatDivide(), $this->layout->recipe->gap ?? 0) as $border) {
            if ($border->between !== $between || $border->at !== $from || $along < $border->span['from'] || $along >= $border->span['to']) {
                continue;
            }
            if ($to < $border->least || $to > $border->most) {
                throw DocumentRefused::because(Reason::ValueRange, sprintf('The border is to lie at %d px; %d to %d px leave every zone at least 1 px.', $to, $border->least, $border->most), '/to');
            }

            return $this->next($this->layout->placed($border->movedTo($to, $this->rectsThatDivide())), [])
                ->following();
        }
        throw ActRefused::because(Reason::BorderUnknown, sprintf('No zones meet at %s = %d px.', $between === 'columns' ? 'x' : 'y', $from), '/from');
    }

    /**
     * Zones of one row, or of one column, made equal in width or height. Odd px go to the first.
     *
     * @param list<string> $zones
     * @throws DocumentRefused `zone.apart` unless they lie in a row or a column, one next to the other
     */
    public function equalised(array $zones): self
    {
        $rects = [];
        foreach ($zones as $id) {
            $rects[$id] = $this->zone($id)->rect();
        }
        if ($rects === []) {
            throw ActRefused::because(Reason::ZoneUnknown, 'Two zones or more can be made equal.', '/zones');
        }
        $inRow = self::gapsOf($rects, true);
        $gaps = $inRow ?? self::gapsOf($rects, false)
            ?? throw ActRefused::because(Reason::ZoneApart, sprintf('%s do not lie in one row or one column, side by side.', self::names($zones)), '/zones');
        $wide = $inRow !== null;
        uasort($rects, static fn (Rect $a, Rect $b): int => $wide ? $a->x <=> $b->x : $a->y <=> $b->y);
        $whole = self::around(array_values($rects));
        $room = ($wide ? $whole->width : $whole->height) - array_sum($gaps);
        $sizes = Tracks::whole(array_fill(0, count($rects), $room / count($rects)));
        [$at, $placed] = [$wide ? $whole->x : $whole->y, []];
        foreach (array_keys($rects) as $index => $id) {
            $placed[$id] = $wide ? Rect::at($at, $whole->y, $sizes[$index], $whole->height) : Rect::at($whole->x, $at, $whole->width, $sizes[$index]);
            $at += $sizes[$index] + ($gaps[$index] ?? 0);
        }

        return $this->next($this->layout->placed($placed), [])->following();
    }

    /**
     * Elements with one edge, or their centres, on a line: that of all of them together.
     *
     * @param list<string> $ids
     * @param 'left'|'centre'|'right'|'top'|'middle'|'bottom' $edge
     * @throws DocumentRefused
     */
    public function aligned(array $ids, string $edge): self
    {
        $rects = $this->rects($ids, 2);
        $whole = self::around(array_values($rects));

        return $this->put(array_map(static fn (Rect $r): Rect => match ($edge) {
            'left' => Rect::at($whole->x, $r->y, $r->width, $r->height),
            'centre' => Rect::at($whole->x + intdiv($whole->width - $r->width, 2), $r->y, $r->width, $r->height),
            'right' => Rect::at($whole->right() - $r->width, $r->y, $r->width, $r->height),
            'top' => Rect::at($r->x, $whole->y, $r->width, $r->height),
            'middle' => Rect::at($r->x, $whole->y + intdiv($whole->height - $r->height, 2), $r->width, $r->height),
            'bottom' => Rect::at($r->x, $whole->bottom() - $r->height, $r->width, $r->height),
        }, $rects));
    }

    /**
     * Elements with the same gap between each two, the first and the last where they are; odd px go to the first gaps.
     *
     * @param list<string> $ids
     * @throws DocumentRefused where they do not fit between the first and the last
     */
    public function distributed(array $ids, bool $across): self
    {
        $rects = $this->rects($ids, 3);
        uasort($rects, static fn (Rect $a, Rect $b): int => $across ? [$a->x, $a->right()] <=> [$b->x, $b->right()] : [$a->y, $a->bottom()] <=> [$b->y, $b->bottom()]);
        $whole = self::around(array_values($rects));
        $free = ($across ? $whole->width : $whole->height) - array_sum(array_map(static fn (Rect $r): int => $across ? $r->width : $r->height, $rects));
        if ($free < 0) {
            throw ActRefused::because(Reason::ZoneApart, sprintf('They are %d px larger together than the room that they have.', -$free), '/zones');
        }
        $between = max(1, count($rects) - 1);
        $gaps = Tracks::whole(array_fill(0, $between, $free / $between));
        [$at, $placed] = [$across ? $whole->x : $whole->y, []];
        foreach ($rects as $id => $r) {
            $placed[$id] = $across ? Rect::at($at, $r->y, $r->width, $r->height) : Rect::at($r->x, $at, $r->width, $r->height);
            $at += ($across ? $r->width : $r->height) + ($gaps[count($placed) - 1] ?? 0);
        }

        return $this->put($placed);
    }

    /** Two elements, each in the place of the other. @throws DocumentRefused */
    public function swapped(string $one, string $other): self
    {
        $places = [$one => $this->zone($other)->rect(), $other => $this->zone($one)->rect()];

        return $this->next($this->layout->placed($places), [])->following();
    }

    /**
     * The recipe written anew so that it says what the zones are.
     *
     * @throws DocumentRefused `recipe.none` where no tracks say it
     */
    public function retold(): self
    {
        $recipe = Recipe::describing($this->rectsThatDivide(), $this->layout->canvas, $this->layout->recipe)
            ?? Recipe::describing($this->rectsThatDivide(), $this->layout->canvas);

        return $recipe === null
            ? throw ActRefused::because(Reason::RecipeNone, 'No columns and rows divide the canvas as these zones do: they overlap, stand beyond the canvas, or there are none.', '/elements')
            : $this->next($this->layout->with(['recipe' => $recipe->toArray()]), []);
    }

    /**
     * The same elements over and over, in columns and rows beside and below where they stand now; those that would lie wholly beyond the canvas are told.
     *
     * @param list<string> $ids
     * @param int $gapX px between columns
     * @param int $gapY px between rows
     * @throws DocumentRefused
     */
    public function repeated(array $ids, int $columns, int $rows, int $gapX, int $gapY): self
    {
        $around = self::around(array_values($this->rects($ids, 1)));
        if ($columns * $rows * count($ids) > self::MOST_REPEATED) {
            throw DocumentRefused::because(Reason::ValueRange, sprintf('%d x %d of %d elements are more than %d.', $columns, $rows, count($ids), self::MOST_REPEATED), '/columns');
        }
        $next = $this->layout;
        $originals = array_values(array_filter($this->layout->elements, static fn (WrittenElement $element): bool => in_array($element->id(), $ids, true)));
        $beyond = 0;
        for ($row = 0; $row < $rows; $row++) {
            for ($column = 0; $column < $columns; $column++) {
                if ($row + $column > 0) {
                    [$dx, $dy] = [$column * ($around->width + $gapX), $row * ($around->height + $gapY)];
                    [$next] = $next->inserted($originals, $dx, $dy, $this->taken);
                    $beyond += $around->x + $dx >= $this->layout->canvas->width || $around->y + $dy >= $this->layout->canvas->height ? 1 : 0;
                }
            }
        }

        return $this->next($next, $beyond === 0 ? [] : [sprintf('%d of them lie beyond the canvas.', $beyond)]);
    }

    /**
     * One element more, on top, as it begins.
     *
     * @param array<string, mixed> $fields what is known of it already
     * @throws DocumentRefused
     */
    public function begun(Node $kind, Rect $rect, array $fields): self
    {
        $element = Kinds::begun($kind, $this->layout->freeId($kind->text() . '1', $this->taken), $rect, $this->layout->canvas, $fields);

        return new self($this->layout->added($element), $this->said, $this->taken, [$element->id()]);
    }

    /**
     * Elements put in on top under ids of their own (Layout::inserted).
     *
     * @param list<WrittenElement> $originals
     * @throws DocumentRefused
     */
    public function inserted(array $originals, int $dx, int $dy): self
    {
        [$layout, $ids] = $this->layout->inserted($originals, $dx, $dy, $this->taken);

        return new self($layout, $this->said, $this->taken, $ids);
    }

    /**
     * Without some; what is locked stays.
     *
     * @param list<string> $ids
     */
    public function removed(array $ids): self
    {
        $locked = array_filter($ids, fn (string $id): bool => $this->layout->element($id)?->isLocked() === true);
        $said = $locked === [] ? [] : ['What is locked stays; unlock it first.'];

        return new self($this->layout->without(...array_diff($ids, $locked)), [...$this->said, ...$said], $this->taken, array_values($locked));
    }

    /** @param list<string> $ids */
    public function restacked(array $ids, int $by): self
    {
        return $this->next($this->layout->restacked($ids, $by), []);
    }

    /** What a cure says. @throws Refused */
    public function cured(Fix $cure): self
    {
        return $this->next($this->layout->cured($cure), []);
    }

    /** The recipe with its tracks of px as shares of this canvas. @throws DocumentRefused */
    public function inShares(): self
    {
        return $this->next($this->layout->with(['recipe' => $this->recipe()->inShares($this->layout->canvas)->toArray()]), []);
    }

    /**
     * What divides a canvas: the zones that lie in no other, and what the recipe names.
     *
     * @param list<Element> $elements
     * @param list<Element> $zones those of them that are zones
     * @return array<string, Rect> by id
     */
    private static function dividing(array $elements, array $zones, ?Recipe $recipe): array
    {
        $rects = [];
        foreach (Sums::withoutInsets($zones) as $zone) {
            $rects[$zone->id()] = $zone->rect();
        }
        foreach ($elements as $element) {
            if (isset($recipe->areas[$element->id()])) {
                $rects[$element->id()] = $element->rect();
            }
        }

        return $rects;
    }

    /** @return array<string, Rect> by id */
    private function rectsThatDivide(): array
    {
        return self::dividing($this->layout->elements, array_values($this->zones()), $this->layout->recipe);
    }

    /** @return array<string, Zone> by id */
    private function zones(): array
    {
        return Zone::among($this->layout->elements);
    }

    /** The recipe, if there is one, following what the zones have become; where it cannot, that is said. */
    public function following(): self
    {
        if ($this->layout->recipe === null) {
            return $this;
        }
        $recipe = Recipe::describing($this->rectsThatDivide(), $this->layout->canvas, $this->layout->recipe);

        return $recipe === null
            ? $this->saying('The recipe cannot say this: the zones do not stand in whole columns and rows.')
            : $this->next($this->layout->with(['recipe' => $recipe->toArray()]), []);
    }

    /**
     * All elements on another canvas, or in another division of it.
     *
     * @param array<string, Rect> $rects of the elements that are given a place
     * @param bool $scaled whether all others scale with what they lie in
     */
    private function laid(array $rects, Size $canvas, ?Recipe $recipe, bool $scaled): self
    {
        $places = new Scaling($this->layout, $rects, $canvas);
        [$elements, $said] = [[], []];
        foreach ($this->layout->elements as $element) {
            $rect = $rects[$element->id()] ?? ($scaled ? $places->rect($element) : $element->rect());
            $next = $element->scaled($rect, $scaled ? $places->factor($element) : 1.0);
            $elements[] = $next;
            $words = $element->rect()->size()->equals($rect->size()) ? [] : [sprintf('%s becomes %s px', $element->rect()->size(), $rect->size())];
            [$type, $before] = [Layout::typeSize($next), Layout::typeSize($element)];
            if ($type !== null && $before !== null && $type !== $before) {
                $words[] = sprintf('type of %s px becomes %s px', $before, $type);
            }
            if ($words !== []) {
                $said[] = sprintf('"%s": %s.', $element->id(), implode(', ', $words));
            }
        }
        $guides = $canvas->equals($this->layout->canvas) ? $this->layout->guides : $this->layout->guides->scaled($this->layout->canvas, $canvas);

        return $this->next($this->layout->with(
            ['elements' => array_map(static fn (WrittenElement $element): array => $element->toArray(), $elements), 'canvas' => $canvas->toArray()]
                + $guides->toArray() + ($recipe === null ? [] : ['recipe' => $recipe->toArray()]),
        ), $said);
    }

    /** @param list<string> $said */
    private function next(Layout $layout, array $said): self
    {
        return new self($layout, [...$this->said, ...$said], $this->taken);
    }

    private function saying(string $sentence): self
    {
        return new self($this->layout, [...$this->said, $sentence], $this->taken);
    }

    /** @throws ActRefused */
    private function recipe(): Recipe
    {
        return $this->layout->recipe ?? throw ActRefused::because(
            Reason::RecipeMissing,
            'The layout has no recipe, so nothing says how it divides another raster; write one, or scale everything.',
            '/recipe',
        );
    }

    /** @throws DocumentRefused */
    private function zone(string $id): Zone
    {
        return $this->zones()[$id] ?? throw ActRefused::because(Reason::ZoneUnknown, sprintf('"%s" is no zone of this layout.', $id), '/zones');
    }

    /** @param array<string, Rect> $placed */
    private function put(array $placed): self
    {
        $next = $this->next($this->layout->placed($placed), []);

        return array_intersect_key($placed, $this->zones()) === [] ? $next : $next->following();
    }

    /**
     * @param list<string> $ids
     * @return non-empty-array<string, Rect>
     * @throws DocumentRefused
     */
    private function rects(array $ids, int $least): array
    {
        $rects = [];
        foreach ($ids as $id) {
            $rects[$id] = $this->layout->element($id)?->rect()
                ?? throw ActRefused::because(Reason::ZoneUnknown, sprintf('"%s" is no element of this layout.', $id), '/zones');
        }

        return count($rects) >= $least && $rects !== []
            ? $rects
            : throw ActRefused::because(Reason::ZoneUnknown, sprintf('%d elements or more are wanted.', $least), '/zones');
    }

    /** @param non-empty-list<Rect> $rects */
    private static function around(array $rects): Rect
    {
        $x = min(array_map(static fn (Rect $r): int => $r->x, $rects));
        $y = min(array_map(static fn (Rect $r): int => $r->y, $rects));

        return Rect::at(
            $x,
            $y,
            max(array_map(static fn (Rect $r): int => $r->right(), $rects)) - $x,
            max(array_map(static fn (Rect $r): int => $r->bottom(), $rects)) - $y,
        );
    }

    /**
     * What lies between rectangles of one row or column.
     *
     * @param array<string, Rect> $rects
     * @return ?list<int> px; null where they do not lie so, or overlap
     */
    private static function gapsOf(array $rects, bool $inRow): ?array
    {
        $spans = array_map(static fn (Rect $r): array => $inRow ? [$r->x, $r->right(), $r->y, $r->height] : [$r->y, $r->bottom(), $r->x, $r->width], array_values($rects));
        sort($spans);
        $gaps = [];
        for ($i = 1; $i < count($spans); $i++) {
            $gaps[] = $spans[$i][0] - $spans[$i - 1][1];
            if ($gaps[$i - 1] < 0 || $spans[$i][2] !== $spans[0][2] || $spans[$i][3] !== $spans[0][3]) {
                return null;
            }
        }

        return $gaps === [] ? null : $gaps;
    }

    /** @param list<string> $ids */
    private static function names(array $ids): string
    {
        return implode(', ', array_map(static fn (string $id): string => "\"$id\"", $ids));
    }
}
