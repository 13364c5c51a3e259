<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;

/** What one output of a player sends: which part of the canvas, turned how, in which timing, through which link. */
final readonly class Feed
{
    /**
     * @param list<string> $panels ids of those it feeds: one, or all behind a processor
     * @param Size $raster that it sends: that of the panel unturned, or that of the processor
     * @param ?Timing $timing CVT with reduced blanking at the display's refresh; null where no timing can be calculated for that raster
     * @param ?Link $link null where the survey names none that is known
     */
    private function __construct(
        public ?string $player,
        public ?int $output,
        public array $panels,
        public Rect $source,
        public Rotation $rotation,
        public Size $raster,
        public ?Timing $timing,
        public ?Link $link,
    ) {
    }

    /** @return list<self> in the order of players and outputs */
    public static function of(Display $display): array
    {
        $feeds = [];
        $processor = $display->processor;
        if ($processor !== null) {
            $panels = array_map(static fn (PlacedPanel $panel): string => $panel->panel->id, $display->wall->panels);
            $feeds[] = self::one($display, $processor->player, $processor->output, $panels, Rect::whole($display->raster()), Rotation::None, $processor->raster);
        } else {
            foreach ($display->wall->panels as $panel) {
                $feeds[] = self::one($display, $panel->player, $panel->output, [$panel->panel->id], $panel->source, $panel->panel->rotation, $panel->panel->native);
            }
        }
        usort($feeds, static fn (self $a, self $b): int => [$a->player, $a->output] <=> [$b->player, $b->output]);

        return $feeds;
    }

    /** @return array<string, mixed> */
    public function toArray(int $bits): array
    {
        return [
            'player' => $this->player,
            'output' => $this->output,
            'panels' => $this->panels,
            'source' => $this->source->toArray(),
            'rotation' => $this->rotation->value,
            'raster' => $this->raster->toArray(),
            'timing' => $this->timing?->toArray(),
            'link' => $this->link?->name,
            'load' => $this->timing === null || $this->link === null ? null : round($this->link->load($this->timing, $bits), 4),
            'load_says' => $this->timing === null ? null : $this->link?->says($this->timing, $bits),
        ];
    }

    /** @param list<string> $panels */
    private static function one(Display $display, ?string $player, ?int $output, array $panels, Rect $source, Rotation $rotation, Size $raster): self
    {
        $calculable = min($raster->width, $raster->height) >= Timing::LEAST_SIDE && max($raster->width, $raster->height) <= Timing::LONGEST_SIDE
            && $display->refreshHz >= Timing::LEAST_HZ && $display->refreshHz <= Timing::MOST_HZ;
        $link = $display->player($player)->outputs[$output ?? 0] ?? null;

        return new self(
            $player,
            $output,
            $panels,
            $source,
            $rotation,
            $raster,
            $calculable ? Timing::cvt($raster, $display->refreshHz, Blanking::Reduced) : null,
            $link === null ? null : Link::named($link->link),
        );
    }
}
