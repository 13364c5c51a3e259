<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Feed;
use UpperPane\Core\Display\PlacedPanel;
use UpperPane\Core\Display\Survey;
use UpperPane\Core\Finding\Level;

/** What lists say of a display: worked out by the core once, when it is surveyed. */
final readonly class Summary
{
    /** More panels than these are not drawn in small pictures. */
    private const DRAWN_PANELS = 64;

    /** @return array<string, mixed> */
    public static function of(Display $display, ?string $timezone): array
    {
        $raster = $display->raster();
        $findings = Survey::check($display, $timezone);
        $panels = $display->wall->panels;

        return [
            'name' => $display->name,
            'timezone' => $display->timezone,
            'raster' => $raster->toArray(),
            'orientation' => $raster->isSquare() ? 'square' : ($raster->isPortrait() ? 'portrait' : 'landscape'),
            'rotation' => $display->isWall() ? 0 : $panels[0]->panel->rotation->value,
            'active_mm' => $display->active()->toArray(),
            'px_per_mm' => $display->pxPerMm(),
            'viewing' => ['nearest_mm' => $display->viewing->nearestMm, 'farthest_mm' => $display->viewing->farthestMm],
            'technology' => $display->led ? 'led' : 'lcd',
            'panels' => count($panels),
            'sources' => $display->isWall() && count($panels) <= self::DRAWN_PANELS
                ? array_map(static fn (PlacedPanel $panel): array => array_values($panel->source->toArray()), $panels)
                : [],
            'feeds' => array_map(static fn (Feed $feed): array => ['player' => $feed->player, 'output' => $feed->output], Feed::of($display)),
            'found' => ['stops' => $findings->count(Level::Stop), 'warnings' => $findings->count(Level::Warning), 'hints' => $findings->count(Level::Hint)],
        ];
    }

    /**
     * The same for displays that differ in nothing but their ids and names, in hex.
     *
     * @param array<mixed> $document
     */
    public static function alike(array $document): string
    {
        return hash('sha256', json_encode(array_diff_key($document, ['id' => 1, 'name' => 1]), JSON_THROW_ON_ERROR));
    }

    /** Changes with all that a release depends on, in hex. */
    public static function shape(Display $display): string
    {
        return hash('sha256', json_encode([
            $display->raster()->toArray(),
            array_map(static fn (Feed $feed): array => [$feed->player, $feed->output, $feed->source->toArray(), $feed->rotation->value, $feed->raster->toArray()], Feed::of($display)),
        ], JSON_THROW_ON_ERROR));
    }
}
