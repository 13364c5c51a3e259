<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Geometry\Box;

/** What an installer needs to hang and cable a display: the wall from the front and from behind, its cables, and the order of switching on. */
final readonly class WiringSheet
{
    /** Between two panels, so that their inrush currents do not add up; s. Common practice, no source. */
    public const BETWEEN_PANELS_S = 3;
    /** Until panels and processors are up, so that a player reads their EDIDs as it starts; s. Common practice, no source. */
    public const UNTIL_UP_S = 30;

    /**
     * @param list<array{id: string, front: Box, behind: Box, inner: Box, rotation: int, arrow: int, player: ?string, output: ?int}> $panels boxes
     *     with frames in mm, from the top left of the outermost frame; inner: the active area from the front; arrow: where the panel's own top
     *     points, degrees clockwise from up as seen from the front
     * @param float $width mm with frames
     * @param float $height mm with frames
     * @param list<array{number: int, from: string, to: string, link: string, signal: string}> $cables
     * @param list<array{at_s: int, what: string}> $switching seconds after the first
     * @param list<string> $checks to tick off
     */
    private function __construct(
        public array $panels,
        public float $width,
        public float $height,
        public array $cables,
        public array $switching,
        public array $checks,
    ) {
    }

    public static function of(Display $display): self
    {
        $outer = array_map(static fn (PlacedPanel $panel): Box => $panel->outer(), $display->wall->panels);
        $left = min(array_map(static fn (Box $box): float => $box->x, $outer));
        $top = min(array_map(static fn (Box $box): float => $box->y, $outer));
        $width = max(array_map(static fn (Box $box): float => $box->x + $box->width, $outer)) - $left;
        $height = max(array_map(static fn (Box $box): float => $box->y + $box->height, $outer)) - $top;
        $panels = [];
        foreach ($display->wall->panels as $index => $panel) {
            $front = $outer[$index]->placed(1, 1, -$left, -$top);
            $panels[] = [
                'id' => $panel->panel->id,
                'front' => $front,
                'behind' => new Box($width - $front->x - $front->width, $front->y, $front->width, $front->height),
                'inner' => $panel->place->placed(1, 1, -$left, -$top),
                'rotation' => $panel->panel->rotation->value,
                'arrow' => $panel->panel->rotation->value,
                'player' => $panel->player,
                'output' => $panel->output,
            ];
        }

        return new self($panels, $width, $height, self::cables($display), self::switching($display), self::checks($display));
    }

    /** @return list<array{number: int, from: string, to: string, link: string, signal: string}> */
    private static function cables(Display $display): array
    {
        $cables = [];
        foreach (Feed::of($display) as $feed) {
            $link = $display->player($feed->player)->outputs[$feed->output ?? 0]->link ?? 'not said';
            $signal = sprintf('%s px, %s Hz', $feed->raster, $display->refreshHz) . ($feed->timing === null ? '' : sprintf(', %s MHz', round($feed->timing->clockKhz / 1000, 2)));
            $cables[] = [
                'number' => count($cables) + 1,
                'from' => self::output($feed),
                'to' => $display->processor === null ? 'panel ' . $feed->panels[0] : 'wall processor, in',
                'link' => $link,
                'signal' => $signal,
            ];
        }
        foreach ($display->processor === null ? [] : $display->wall->panels as $panel) {
            $cables[] = [
                'number' => count($cables) + 1,
                'from' => 'wall processor',
                'to' => "panel {$panel->panel->id}",
                'link' => 'as the processor has it',
                'signal' => "{$panel->panel->native} px",
            ];
        }

        return $cables;
    }

    /** @return list<array{at_s: int, what: string}> */
    private static function switching(Display $display): array
    {
        [$steps, $at] = [[], 0];
        $panels = $display->wall->panels;
        usort($panels, static fn (PlacedPanel $a, PlacedPanel $b): int => [$a->source->y, $a->source->x] <=> [$b->source->y, $b->source->x]);
        foreach ($panels as $panel) {
            $steps[] = ['at_s' => $at, 'what' => "panel {$panel->panel->id}"];
            $at += self::BETWEEN_PANELS_S;
        }
        if ($display->processor !== null) {
            $steps[] = ['at_s' => $at, 'what' => 'wall processor'];
        }
        $at += self::UNTIL_UP_S;
        $players = array_values(array_unique(array_filter(array_map(static fn (Feed $feed): ?string => $feed->player, Feed::of($display)))));
        foreach ($players === [] ? ['the player'] : array_map(static fn (string $id): string => "player $id", $players) as $player) {
            $steps[] = ['at_s' => $at, 'what' => $player];
            $at += self::BETWEEN_PANELS_S;
        }

        return $steps;
    }

    /** @return list<string> */
    private static function checks(Display $display): array
    {
        $turned = array_filter($display->wall->panels, static fn (PlacedPanel $panel): bool => $panel->panel->rotation !== Rotation::None);

        return array_values(array_filter([
            'Wall and brackets carry the panels and are level',
            $turned === [] ? null : sprintf('%d panels are turned as the arrows show', count($turned)),
            sprintf('The middle hangs %.0f mm above the floor', $display->viewing->centreHeightMm),
            $display->isWall() ? 'Gaps between frames are as drawn' : null,
            'Each cable is in the output and the panel of the list',
            'Panels show their input pixel for pixel: no overscan, no sharpening',
            'The alignment picture stands on each panel: its id, its output, its arrow up',
            $display->isWall() ? 'Circles and diagonals run straight on across the seams' : null,
            'Brightness and white are the same on all panels',
        ]));
    }

    private static function output(Feed $feed): string
    {
        return ($feed->player === null ? 'the player' : "player $feed->player") . ($feed->output === null ? '' : ", output $feed->output");
    }
}
