<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Finding\Cures;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Finding\Trial;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Units\Percent;

/** What is found in the survey of a display: figures that contradict each other, panels that cannot hang so, signals that do not go through. */
final readonly class Survey
{
    /** How far the aspects of px and of mm may be apart. Common practice, no source. */
    private const SAME_ASPECT = 0.02;
    /** Less than this is how panels touch, not how they overlap, mm. */
    private const TOUCH_MM = 0.1;

    /** @return list<Explanation> of what is found here */
    public static function explained(): array
    {
        return [
            new Explanation('output.twice', 'stop', 'two panels on one output', 'one of them would show the other\'s picture', 'arithmetic'),
            new Explanation('output.missing', 'stop', 'a panel on an output that its player does not have', 'it stays dark', 'the survey'),
            new Explanation(
                'output.over-budget',
                'stop',
                'a raster, refresh and depth that the link does not carry, with CVT\'s reduced blanking',
                'no picture, or a flickering one',
                'link limits from memory; CVT 1.2',
            ),
            new Explanation('panel.overlap', 'warning', 'frames of two panels in one place by more than 0.1 mm', 'they cannot hang so', 'arithmetic'),
            new Explanation('wall.density', 'warning', 'px/mm along a row or column apart by over 0.5 %', 'sizes jump between panels', 'common practice'),
            new Explanation(
                'wall.ragged',
                'warning',
                'a grid whose panels are not as wide or high as their neighbours, by a turn for example',
                'it is cut from mm',
                'arithmetic',
            ),
            new Explanation('wall.hole', 'hint', 'a place of the grid without a panel', 'what lies there is not seen', 'arithmetic'),
            new Explanation('processor.lost', 'hint', 'a wall processor\'s raster has fewer px than the canvas', 'the picture is softer', 'arithmetic'),
            new Explanation(
                'processor.aspect',
                'warning',
                'a wall processor whose raster differs in aspect from the canvas by over 2 %, or has more px than it; the cure is the raster of the canvas',
                'the picture is squeezed, or px are sent that nobody shows',
                'common practice',
            ),
            new Explanation(
                'survey.aspect',
                'warning',
                'px and mm of a panel apart by over 2 % in aspect',
                'a figure is wrong, or given the wrong way round',
                'common practice',
            ),
            new Explanation(
                'survey.range',
                'warning',
                'not one line of 16\' fits the display at its farthest viewer',
                'nothing can be read from there',
                'ISO 9241-303 from memory; line and capital shares common practice',
            ),
            new Explanation('survey.timezone', 'hint', 'another time zone than that of its place', 'eight o\'clock would come at another time', 'common practice'),
        ];
    }

    /** @param ?string $timezone of the place where it hangs; null where nobody says */
    public static function check(Display $display, ?string $timezone = null): Findings
    {
        return new Findings(Cures::tried(self::found($display, $timezone), static fn (Fix $cure): array => [
            new Trial($cure, self::found($display, $timezone), self::found($display->cured($cure), $timezone)),
        ]));
    }

    /** @return list<Finding> */
    private static function found(Display $display, ?string $timezone): array
    {
        return array_values([
            ...self::outputs($display),
            ...self::overlaps($display->wall),
            ...self::density($display->wall),
            ...self::ragged($display),
            ...self::aspects($display->wall),
            ...self::range($display),
            ...self::zone($display, $timezone),
            ...self::holes($display->wall),
            ...self::lost($display),
            ...self::processor($display),
        ]);
    }

    /** @return iterable<Finding> `output.twice`, `output.missing`, `output.over-budget` */
    private static function outputs(Display $display): iterable
    {
        $by = [];
        foreach (Feed::of($display) as $feed) {
            $player = $feed->player ?? '';
            $by["$player $feed->output"][] = $feed;
        }
        foreach ($by as $feeds) {
            $feed = $feeds[0];
            $panels = array_merge(...array_map(static fn (Feed $one): array => $one->panels, $feeds));
            if (count($feeds) > 1) {
                yield new Finding(
                    'output.twice',
                    Level::Stop,
                    $panels,
                    sprintf('Output %d%s feeds %s; an output feeds one panel.', $feed->output, self::ofPlayer($feed), self::list($panels)),
                    ['player' => $feed->player, 'output' => $feed->output],
                );
            }
            $outputs = $display->player($feed->player)->outputs ?? [];
            if ($outputs !== [] && !isset($outputs[$feed->output])) {
                yield new Finding('output.missing', Level::Stop, $panels, sprintf(
                    'Player "%s" has no output %d for %s; it has %s.',
                    $feed->player,
                    $feed->output,
                    self::list($panels),
                    implode(', ', array_keys($outputs)),
                ), ['player' => $feed->player, 'output' => $feed->output]);
            }
            if ($feed->timing !== null && $feed->link !== null && ($load = $feed->link->load($feed->timing, $display->bits)) > 1) {
                yield new Finding('output.over-budget', Level::Stop, $panels, sprintf(
                    'Output %d%s cannot carry %s px at %s Hz and %d bit: %s over %s.',
                    $feed->output,
                    self::ofPlayer($feed),
                    $feed->raster,
                    $display->refreshHz,
                    $display->bits,
                    $feed->link->says($feed->timing, $display->bits),
                    $feed->link->name,
                ), ['player' => $feed->player, 'output' => $feed->output, 'load' => round($load, 4), 'pixel_clock_khz' => $feed->timing->clockKhz]);
            }
        }
    }

    /** @return iterable<Finding> `panel.overlap`, one for each pair whose frames share a place */
    private static function overlaps(Wall $wall): iterable
    {
        // From left to right: what begins behind the right edge of one cannot lie on it.
        $boxes = array_map(static fn (PlacedPanel $panel): Box => $panel->outer(), $wall->panels);
        uasort($boxes, static fn (Box $a, Box $b): int => $a->x <=> $b->x);
        $pairs = [];
        $open = [];
        foreach ($boxes as $index => $box) {
            foreach ($open as $before => $other) {
                if ($other->x + $other->width <= $box->x) {
                    unset($open[$before]);
                } elseif ($other->y < $box->y + $box->height && $box->y < $other->y + $other->height) {
                    $pairs[] = [min($before, $index), max($before, $index)];
                }
            }
            $open[$index] = $box;
        }
        sort($pairs);
        foreach ($pairs as [$first, $second]) {
            [$one, $other] = [$wall->panels[$first], $wall->panels[$second]];
            $common = $boxes[$first]->clippedTo($boxes[$second]);
            if (min($common->width, $common->height) <= self::TOUCH_MM) {
                continue;
            }
            yield new Finding(
                'panel.overlap',
                Level::Warning,
                [$one->panel->id, $other->panel->id],
                sprintf('%s and %s overlap by %.1f x %.1f mm, frames included.', $one->panel->id, $other->panel->id, $common->width, $common->height),
                ['width_mm' => round($common->width, 2), 'height_mm' => round($common->height, 2)],
                $one->source->intersection($other->source),
            );
        }
    }

    /** @return iterable<Finding> `wall.density`, one for each row and column whose panels differ by more than 0.5 % */
    private static function density(Wall $wall): iterable
    {
        foreach (['row', 'column'] as $way) {
            $tracks = [];
            foreach ($wall->panels as $placed) {
                $number = $way === 'row' ? $placed->panel->row : $placed->panel->column;
                $tracks[$number ?? -1][] = $placed->panel;
            }
            ksort($tracks);
            foreach ($tracks as $number => $panels) {
                if ($number === -1 && $way === 'column') {
                    continue;
                }
                $of = array_map(static fn (Panel $panel): float => $panel->pxPerMm(), $panels);
                [$least, $most] = [min($of), max($of)];
                if ($most - $least <= Wall::SAME_DENSITY * $most) {
                    continue;
                }
                yield new Finding('wall.density', Level::Warning, array_map(static fn (Panel $panel): string => $panel->id, $panels), sprintf(
                    'The panels %s have %.4f to %.4f px/mm, %.1f %% apart: the picture changes its sharpness between them.',
                    $number === -1 ? 'of the wall' : sprintf('of %s %d', $way, $number + 1),
                    $least,
                    $most,
                    ($most - $least) / $most * 100,
                ), ['least' => round($least, 4), 'most' => round($most, 4)]);
            }
        }
    }

    /** @return iterable<Finding> `wall.ragged`: a grid whose panels are not as wide and as high as those beside them */
    private static function ragged(Display $display): iterable
    {
        $panels = array_map(static fn (PlacedPanel $panel): Panel => $panel->panel, $display->wall->panels);
        if ($panels[0]->origin !== null || Wall::isGridOfLikePanels($panels, true)) {
            return;
        }
        $first = $panels[0]->raster();
        $other = array_values(array_filter($panels, static fn (Panel $panel): bool => !$panel->raster()->equals($first)));
        yield new Finding('wall.ragged', Level::Warning, array_map(static fn (Panel $panel): string => $panel->id, $other), sprintf(
            'The grid is ragged: %s has %s px as it hangs, %s %s px. The wall is cut from mm, each panel at the top left of its cell.',
            $panels[0]->id,
            $first,
            self::list(array_map(static fn (Panel $panel): string => $panel->id, array_slice($other, 0, 4))),
            $other === [] ? $first : $other[0]->raster(),
        ));
    }

    /** @return iterable<Finding> `survey.aspect` */
    private static function aspects(Wall $wall): iterable
    {
        foreach ($wall->panels as $placed) {
            $panel = $placed->panel;
            $px = $panel->native->width / $panel->native->height;
            $mm = $panel->active->width / $panel->active->height;
            if (abs($px / $mm - 1) <= self::SAME_ASPECT) {
                continue;
            }
            $wrongWay = abs($px * $mm - 1) <= self::SAME_ASPECT;
            yield new Finding('survey.aspect', Level::Warning, [$panel->id], sprintf(
                '%s has %s px but %.1f x %.1f mm: the aspects are %.1f %% apart.%s',
                $panel->id,
                $panel->native,
                $panel->active->width,
                $panel->active->height,
                abs($px / $mm - 1) * 100,
                $wrongWay ? ' One of them is given the wrong way round; both are those of the panel unturned.' : '',
            ), ['px' => round($px, 4), 'mm' => round($mm, 4)], null, $wrongWay ? [Fix::panel(
                sprintf('Make it %s px', $panel->native->swapped()),
                $panel->id,
                ['native' => $panel->native->swapped()->toArray()],
            )] : []);
        }
    }

    /** @return iterable<Finding> `survey.range`: not even one line can be read from the farthest viewer */
    private static function range(Display $display): iterable
    {
        $farthest = $display->viewing->farthestMm;
        $cap = Legibility::capMm(Legibility::LIMIT_ARCMIN, $display->viewing->farthestEyeMm());
        $line = $cap / Legibility::CAP_SHARE * Legibility::LINE_SHARE;
        $high = $display->active()->height;
        if ($line > $high) {
            yield new Finding('survey.range', Level::Warning, [], sprintf(
                'Nothing can be read on it from %.1f m: the smallest readable capital is %.0f mm high, its line %.0f mm, the display %.0f mm. One line reaches to %.1f m.',
                $farthest / 1000,
                $cap,
                $line,
                $high,
                Legibility::distanceMm($high / Legibility::LINE_SHARE * Legibility::CAP_SHARE, Legibility::LIMIT_ARCMIN) / 1000,
            ), ['cap_mm' => round($cap, 1), 'line_mm' => round($line, 1), 'height_mm' => round($high, 1)]);
        }
    }

    /**
     * `survey.timezone`.
     *
     * @param ?string $timezone of its place
     * @return iterable<Finding>
     */
    public static function zone(Display $display, ?string $timezone): iterable
    {
        if ($timezone !== null && $timezone !== $display->timezone) {
            yield new Finding(
                'survey.timezone',
                Level::Hint,
                [],
                sprintf('Its time zone is %s, that of its place %s.', $display->timezone, $timezone),
                ['display' => $display->timezone, 'place' => $timezone],
                null,
                [Fix::display("Take $timezone", ['timezone' => $timezone])],
            );
        }
    }

    /** @return iterable<Finding> `wall.hole`: cells of the grid without a panel are allowed, and said */
    private static function holes(Wall $wall): iterable
    {
        if (!$wall->free && $wall->voids !== []) {
            yield new Finding('wall.hole', Level::Hint, [], sprintf(
                '%d of the grid\'s %d places %s no panel; what lies there is not seen.',
                count($wall->voids),
                (count($wall->hiddenColumns) + 1) * (count($wall->hiddenRows) + 1),
                count($wall->voids) === 1 ? 'has' : 'have',
            ), ['voids' => count($wall->voids)], $wall->voids[0]);
        }
    }

    /** @return iterable<Finding> `processor.lost`: px of the canvas that do not go through the one output of a processor */
    private static function lost(Display $display): iterable
    {
        $lost = $display->processor?->lost($display->raster()) ?? 0.0;
        if ($display->processor !== null && $lost > 0) {
            $factor = $display->processor->factor($display->raster());
            yield new Finding('processor.lost', Level::Hint, [], sprintf(
                'The canvas of %s px goes through %s px: scaled by %.4f x %.4f, %s of its pixels are lost.',
                $display->raster(),
                $display->processor->raster,
                $factor['width'],
                $factor['height'],
                Percent::of($lost),
            ), ['factor' => ['x' => round($factor['width'], 6), 'y' => round($factor['height'], 6)], 'lost' => round($lost, 4)]);
        }
    }

    /** @return iterable<Finding> `processor.aspect`: a processor that squeezes the canvas, or has px that the canvas does not have */
    private static function processor(Display $display): iterable
    {
        $processor = $display->processor;
        if ($processor === null) {
            return;
        }
        [$canvas, $raster] = [$display->raster(), $processor->raster];
        $apart = abs(($raster->width / $raster->height) / ($canvas->width / $canvas->height) - 1);
        $more = $raster->area() - $canvas->area();
        if ($apart <= self::SAME_ASPECT && $more <= 0) {
            return;
        }
        yield new Finding(
            'processor.aspect',
            Level::Warning,
            [],
            sprintf(
                'The wall processor takes %s px, the canvas has %s px: %s.',
                $raster,
                $canvas,
                implode(' and ', array_filter([
                    $apart > self::SAME_ASPECT ? sprintf('their aspects are %s apart, so the picture is squeezed', Percent::of($apart)) : '',
                    $more > 0 ? sprintf('%s px more are sent than are shown', number_format($more)) : '',
                ])),
            ),
            ['aspect' => round($raster->width / $raster->height, 4), 'canvas_aspect' => round($canvas->width / $canvas->height, 4), 'apart' => round($apart, 4), 'more_px' => max(0, $more)],
            null,
            [Fix::display("Let it take $canvas px", ['processor' => array_filter(['player' => $processor->player, 'output' => $processor->output, 'raster' => $canvas->toArray()])])],
        );
    }

    private static function ofPlayer(Feed $feed): string
    {
        return $feed->player === null ? '' : " of player \"$feed->player\"";
    }

    /** @param list<string> $names */
    private static function list(array $names): string
    {
        return count($names) < 2 ? implode('', $names) : implode(', ', array_slice($names, 0, -1)) . ' and ' . $names[count($names) - 1];
    }
}
