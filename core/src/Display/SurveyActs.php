<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\ActRefused;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Geometry\Box;

/**
 * What hands do to a survey, as it is said from outside: `{"do": name, ...}`. Each gives another display, read again. A new act is a line in the table.
 *
 * @phpstan-type Fields array<string, mixed>
 */
final readonly class SurveyActs
{
    private const MOST_OUTPUTS = 64;
    /** Metres from which a screen, and a sign of LED cabinets, are looked at until somebody measures. Common practice, no source. */
    private const NEAREST_MM = 1000;
    private const FARTHEST_MM = ['lcd' => 8000, 'led' => 20_000];
    private const LINK = 'hdmi-2.0';

    /** @var array<string, list<string>> the fields of each act */
    private const FIELDS = [
        'grid' => ['columns', 'rows'],
        'hang' => ['way'],
        'swap' => ['panels'],
        'feed' => ['panel', 'player', 'output'],
        'renumber' => [],
        'apart' => [],
        'together' => [],
        'add' => ['like'],
        'remove' => ['panels'],
        'size' => ['panels', 'size'],
        'outputs' => ['player', 'count'],
        'add-player' => [],
        'remove-player' => ['player'],
        'add-input' => [],
        'add-sensor' => [],
        'cure' => ['fix'],
    ];

    /** @throws Refused */
    public static function done(Display $display, Node $act): Display
    {
        $name = $act->act(self::FIELDS);
        $ids = static fn (): array => array_map(static fn (Node $id): string => $id->id(), $act->field('panels')->items());

        return match ($name) {
            'grid' => self::onGrid($display, $act->field('columns')->int(1, 100), $act->field('rows')->int(1, 100)),
            'hang' => $act->field('way')->oneOf('free', 'grid') === 'free' ? self::hungFreely($display) : self::hungOnGrid($display),
            'swap' => self::swapped($display, ...self::two($act->field('panels'), $ids())),
            'feed' => self::fed($display, $act->field('panel')->id(), $act->given('player')?->id(), $act->given('output')?->int(1, self::MOST_OUTPUTS)),
            'renumber' => self::renumbered($display),
            'apart' => self::apart($display),
            'together' => self::together($display),
            'add' => self::withPanel($display, $act->field('like')->id()),
            'remove' => self::withoutPanels($display, $ids()),
            'size' => self::ofSize($display, $ids(), $act->field('size')),
            'outputs' => self::withOutputs($display, $act->field('player')->id(), $act->field('count')->int(1, self::MOST_OUTPUTS)),
            'add-player' => self::withPlayer($display),
            'remove-player' => self::withoutPlayer($display, $act->field('player')->id()),
            'add-input' => self::withOneMore($display, 'inputs', 'in', ['name' => 'Camera', 'raster' => ['width' => 1920, 'height' => 1080]]),
            'add-sensor' => self::withOneMore($display, 'sensors', 's', ['kind' => 'presence', 'bands_mm' => [500, 1000, 2000]]),
            default => $display->cured(Fix::fromNode($act->field('fix'))),
        };
    }

    /**
     * The first lines of a survey: panels of a class of sizes on a grid, fed by one player.
     *
     * @param Node $size id of the class
     * @throws DocumentRefused
     */
    public static function begun(string $id, string $name, string $timezone, Node $size, int $columns, int $rows, Rotation $rotation): Display
    {
        $class = self::sizeClass($size);
        $panel = ['id' => $columns * $rows === 1 ? 'p1' : 'A1', 'column' => 0, 'row' => 0] + self::label($class) + ['rotation' => $rotation->value];

        return self::onGrid(Display::fromArray([
            'format' => Display::FORMAT,
            'id' => $id,
            'name' => $name,
            'timezone' => $timezone,
            'viewing' => ['nearest_mm' => self::NEAREST_MM, 'farthest_mm' => self::FARTHEST_MM[$class['technology']] ?? self::FARTHEST_MM['lcd']],
            'technology' => $class['technology'],
            'refresh_hz' => 60,
            'panels' => [$panel],
            'players' => [['id' => 'a', 'outputs' => self::outputs([], min(self::MOST_OUTPUTS, $columns * $rows))]],
        ]), $columns, $rows);
    }

    /** A grid of so many columns and rows: what hangs there stays, the rest is like the first panel, its output not said. */
    private static function onGrid(Display $display, int $columns, int $rows): Display
    {
        [$at, $taken] = [[], []];
        foreach (self::panels($display) as $panel) {
            $node = Node::root($panel);
            [$column, $row] = [$node->optional('column')?->int(), $node->optional('row')?->int()];
            if ($column !== null && $row !== null && $column < $columns && $row < $rows) {
                $at[$row][$column] = $panel;
                $taken[] = $node->field('id')->id();
            }
        }
        $like = array_diff_key(self::panels($display)[0], ['output' => 1, 'origin_mm' => 1]);
        $panels = [];
        for ($row = 0; $row < $rows; $row++) {
            for ($column = 0; $column < $columns; $column++) {
                if (isset($at[$row][$column])) {
                    $panels[] = $at[$row][$column];
                    continue;
                }
                $plain = self::letters($row) . ($column + 1);
                for ($id = $plain, $number = 2; in_array($id, $taken, true); $number++) {
                    $id = "$plain-$number";
                }
                $taken[] = $id;
                $panels[] = ['id' => $id, 'column' => $column, 'row' => $row] + $like;
            }
        }

        return self::with($display, ['panels' => $panels]);
    }

    /** Panels hung where they hang now, but freely. */
    private static function hungFreely(Display $display): Display
    {
        return self::eachPanel($display, static fn (array $panel, PlacedPanel $placed): array => [
            'origin_mm' => ['x' => Box::figure($placed->place->x), 'y' => Box::figure($placed->place->y)],
        ] + array_diff_key($panel, ['column' => 1, 'row' => 1]), ['bezels' => 'hide']);
    }

    /** Free panels put on a grid: those that hang side by side are a row. */
    private static function hungOnGrid(Display $display): Display
    {
        $left = $display->wall->panels;
        usort($left, static fn (PlacedPanel $a, PlacedPanel $b): int => $a->place->y <=> $b->place->y);
        $cells = [];
        for ($row = 0; $left !== []; $row++) {
            $first = $left[0]->place;
            $beside = array_filter($left, static fn (PlacedPanel $panel): bool => $panel->place->y < $first->y + $first->height / 2);
            $left = array_values(array_filter($left, static fn (PlacedPanel $panel): bool => $panel->place->y >= $first->y + $first->height / 2));
            usort($beside, static fn (PlacedPanel $a, PlacedPanel $b): int => $a->place->x <=> $b->place->x);
            foreach ($beside as $column => $panel) {
                $cells[$panel->panel->id] = ['column' => $column, 'row' => $row];
            }
        }

        return self::eachPanel($display, static fn (array $panel, PlacedPanel $placed): array => $cells[$placed->panel->id] + array_diff_key($panel, ['origin_mm' => 1]));
    }

    /** Each of two panels gets what feeds the other one: how a swapped cable is mended without pulling it. */
    private static function swapped(Display $display, string $a, string $b): Display
    {
        [$one, $other] = [self::panel($display, $a), self::panel($display, $b)];

        return self::eachPanel($display, static fn (array $panel, PlacedPanel $placed): array => match ($placed->panel->id) {
            $a => self::fedBy($panel, $other->player, $other->output),
            $b => self::fedBy($panel, $one->player, $one->output),
            default => $panel,
        });
    }

    /** Gives a panel an output, and whoever had it gets the one that this panel had; without an output one that is free on that player. */
    private static function fed(Display $display, string $panel, ?string $player, ?int $output): Display
    {
        $before = self::panel($display, $panel);
        $player ??= $output === null ? null : $before->player;
        $other = array_filter($display->wall->panels, static fn (PlacedPanel $one): bool => $output !== null && $one->output === $output && $one->player === $player && $one !== $before);
        $other = array_map(static fn (PlacedPanel $one): string => $one->panel->id, array_values($other))[0] ?? null;

        return self::eachPanel($display, static fn (array $one, PlacedPanel $placed): array => match ($placed->panel->id) {
            $panel => self::fedBy($one, $player, $output),
            $other => self::fedBy($one, $before->player, $before->output),
            default => $one,
        });
    }

    /** All outputs forgotten: they are numbered from left to right and top to bottom. */
    private static function renumbered(Display $display): Display
    {
        return self::eachPanel($display, static fn (array $panel): array => array_diff_key($panel, ['output' => 1]));
    }

    /** Every panel fed by an output of its own, also those of a wall of LED cabinets, which is one output unless it says otherwise. */
    private static function apart(Display $display): Display
    {
        $number = 0;

        return self::eachPanel($display, static function (array $panel) use (&$number, $display): array {
            $number++;

            return $display->led ? ['output' => min(self::MOST_OUTPUTS, $number)] + $panel : $panel;
        }, ['processor' => null]);
    }

    /** All panels fed by one output, of the canvas. */
    private static function together(Display $display): Display
    {
        $player = $display->players === [] ? 'a' : $display->players[0]->id;

        return self::with(self::renumbered($display), ['processor' => $display->led && $display->isWall() ? null : ['player' => $player, 'output' => 1]]);
    }

    /** One more panel like another, at the right of all. */
    private static function withPanel(Display $display, string $like): Display
    {
        $placed = self::panel($display, $like);
        $panels = self::panels($display);
        $original = array_values(array_filter($panels, static fn (array $panel): bool => ($panel['id'] ?? null) === $like))[0];
        $taken = array_map(static fn (PlacedPanel $one): string => $one->panel->id, $display->wall->panels);
        for ($number = count($panels) + 1; in_array("p$number", $taken, true); $number++) {
        }
        if ($placed->panel->origin === null) {
            $columns = array_map(static fn (PlacedPanel $one): int => $one->panel->column ?? 0, $display->wall->panels);
            $place = ['column' => max($columns) + 1, 'row' => $placed->panel->row ?? 0];
        } else {
            $origins = array_map(static fn (PlacedPanel $one): float => ($one->panel->origin['x'] ?? 0.0) + $one->place->width, $display->wall->panels);
            $frame = $placed->panel->frame();
            $place = ['origin_mm' => ['x' => Box::figure(max($origins) + $frame->left + $frame->right), 'y' => Box::figure($placed->panel->origin['y'])]];
        }

        return self::with($display, ['panels' => [...$panels, array_replace(array_diff_key($original, ['output' => 1]), $place, ['id' => "p$number"])]]);
    }

    /** @param list<string> $ids */
    private static function withoutPanels(Display $display, array $ids): Display
    {
        $left = array_values(array_filter(self::panels($display), static fn (array $panel): bool => !in_array($panel['id'] ?? null, $ids, true)));

        return $left === [] ? throw ActRefused::because(Reason::ValueRange, 'A display has at least one panel.', '/panels') : self::with($display, ['panels' => $left]);
    }

    /**
     * Panels of a class of sizes, as their label says.
     *
     * @param list<string> $ids none for all panels
     */
    private static function ofSize(Display $display, array $ids, Node $size): Display
    {
        $class = self::sizeClass($size);

        return self::eachPanel(
            $display,
            static fn (array $panel, PlacedPanel $placed): array => $ids === [] || in_array($placed->panel->id, $ids, true) ? array_replace($panel, self::label($class)) : $panel,
            ['technology' => $class['technology']],
        );
    }

    /** A player with so many outputs; the links of those that stay are kept, the others are like its first. */
    private static function withOutputs(Display $display, string $player, int $count): Display
    {
        return self::eachPlayer($display, $player, static fn (array $one): array => array_replace($one, ['outputs' => self::outputs($one['outputs'] ?? [], $count)]));
    }

    private static function withPlayer(Display $display): Display
    {
        $taken = array_map(static fn (Player $player): string => $player->id, $display->players);
        for ($id = 'a'; in_array($id, $taken, true); $id++) {
        }
        $players = is_array($display->toArray()['players'] ?? null) ? $display->toArray()['players'] : [];

        return self::with($display, ['players' => [...$players, ['id' => $id, 'outputs' => self::outputs([], 1)]]]);
    }

    /** Without a player; what it fed is fed by one that is left. */
    private static function withoutPlayer(Display $display, string $player): Display
    {
        $document = $display->toArray();
        $players = array_filter(is_array($document['players'] ?? null) ? $document['players'] : [], static fn (mixed $one): bool => is_array($one) && ($one['id'] ?? null) !== $player);
        $panels = array_map(
            static fn (array $panel): array => ($panel['player'] ?? null) === $player ? array_diff_key($panel, ['player' => 1, 'output' => 1]) : $panel,
            self::panels($display),
        );
        $processor = is_array($document['processor'] ?? null) && ($document['processor']['player'] ?? null) === $player ? ['processor' => null] : [];

        return self::with($display, ['players' => array_values($players), 'panels' => $panels] + $processor);
    }

    /**
     * One more live input or sensor, as it is usual, under an id of its own.
     *
     * @param Fields $fields
     */
    private static function withOneMore(Display $display, string $list, string $stem, array $fields): Display
    {
        $all = array_map(static fn (Node $one): array => $one->fields(), Node::root($display->toArray())->optional($list)?->items() ?? []);
        for ($number = 1; in_array("$stem$number", array_column($all, 'id'), true); $number++) {
        }

        return self::with($display, [$list => [...$all, ['id' => "$stem$number"] + $fields]]);
    }

    // --- documents ------------------------------------------------------------------------------

    /**
     * @param Fields $fields null takes one away
     * @throws DocumentRefused
     */
    private static function with(Display $display, array $fields): Display
    {
        return Display::fromArray(array_filter(array_replace($display->toArray(), $fields), static fn (mixed $value): bool => $value !== null));
    }

    /** @return non-empty-list<Fields> as written */
    private static function panels(Display $display): array
    {
        $panels = array_map(static fn (Node $panel): array => $panel->fields(), Node::root($display->toArray())->field('panels')->items());

        return $panels === [] ? throw new \LogicException('A display has a panel.') : $panels;
    }

    /**
     * @param \Closure(Fields, PlacedPanel): Fields $change
     * @param Fields $more fields of the display
     */
    private static function eachPanel(Display $display, \Closure $change, array $more = []): Display
    {
        return self::with($display, ['panels' => array_map($change, self::panels($display), $display->wall->panels)] + $more);
    }

    /** @param \Closure(Fields): Fields $change */
    private static function eachPlayer(Display $display, string $id, \Closure $change): Display
    {
        if ($display->player($id) === null) {
            throw ActRefused::because(Reason::RefUnknown, sprintf('"%s" is no player of this display.', $id), '/player');
        }
        $players = array_map(static fn (Node $player): array => $player->fields(), Node::root($display->toArray())->field('players')->items());

        return self::with($display, ['players' => array_map(static fn (array $player): array => ($player['id'] ?? null) === $id ? $change($player) : $player, $players)]);
    }

    private static function panel(Display $display, string $id): PlacedPanel
    {
        return $display->wall->panel($id) ?? throw ActRefused::because(Reason::RefUnknown, sprintf('"%s" is no panel of this display.', $id), '/panel');
    }

    /**
     * @param Fields $panel
     * @return Fields
     */
    private static function fedBy(array $panel, ?string $player, ?int $output): array
    {
        return array_diff_key($panel, ['player' => 1, 'output' => 1]) + ($output === null ? [] : ['output' => $output]) + ($player === null ? [] : ['player' => $player]);
    }

    /** @return list<array{number: int, link: string}> */
    private static function outputs(mixed $before, int $count): array
    {
        $links = [];
        foreach (is_array($before) ? $before : [] as $output) {
            if (is_array($output) && is_int($output['number'] ?? null) && is_string($output['link'] ?? null)) {
                $links[$output['number']] = $output['link'];
            }
        }

        return array_map(static fn (int $number): array => ['number' => $number, 'link' => $links[$number] ?? $links[1] ?? self::LINK], range(1, $count));
    }

    /**
     * @param list<string> $ids
     * @return array{string, string}
     */
    private static function two(Node $node, array $ids): array
    {
        return count($ids) === 2 ? [$ids[0], $ids[1]] : throw $node->refused(Reason::ValueRange, sprintf('names %d panels; two are swapped.', count($ids)));
    }

    /** @return array{id: string, name: string, technology: string, native: array{width: int, height: int}, active_mm: array{width: float, height: float}, bezel_mm: float} */
    private static function sizeClass(Node $size): array
    {
        $classes = array_column(SizeClasses::all(), null, 'id');

        return $classes[$size->oneOf(...array_keys($classes))];
    }

    /**
     * @param array{native: array{width: int, height: int}, active_mm: array{width: float, height: float}, bezel_mm: float, ...} $class
     * @return Fields
     */
    private static function label(array $class): array
    {
        return ['native' => $class['native'], 'active_mm' => $class['active_mm'], 'bezel_mm' => array_fill_keys(['left', 'top', 'right', 'bottom'], $class['bezel_mm'])];
    }

    private static function letters(int $row): string
    {
        return $row < 26 ? chr(65 + $row) : self::letters(intdiv($row, 26) - 1) . chr(65 + $row % 26);
    }
}
