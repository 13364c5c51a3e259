<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Psr\Clock\ClockInterface;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Feed;
use UpperPane\Core\Display\ReadingPlan;
use UpperPane\Core\Display\Survey;

/** Surveys as they are told. */
final readonly class Surveys
{
    public function __construct(private ClockInterface $clock)
    {
    }

    /** @return array<string, mixed> */
    public function whole(SurveyedDisplay $surveyed): array
    {
        return [
            'id' => $surveyed->id,
            'place' => $surveyed->place->id,
            'way' => $surveyed->place->way(),
            'revision' => $surveyed->revision,
            'saved_at' => $surveyed->savedAt?->format('Y-m-d\TH:i:s\Z'),
            'saved_by' => $surveyed->savedBy,
            'alignment_until' => $surveyed->alignmentUntil !== null && $surveyed->alignmentUntil > $this->clock->now() ? $surveyed->alignmentUntil->format('Y-m-d\TH:i:s\Z') : null,
            'document' => $surveyed->document,
        ] + $this->said($surveyed->asSurveyed(), $surveyed->resolved()->timezone(), null);
    }

    /** @return array<string, mixed> everything that the core says of it */
    public function said(Display $display, ?string $timezone, ?float $capPx): array
    {
        return [
            'wall' => $display->wall->toArray(),
            'feeds' => array_map(static fn (Feed $feed): array => $feed->toArray($display->bits), Feed::of($display)),
            'processor' => $display->processor === null ? null : ['raster' => $display->processor->raster->toArray()],
            'reading' => ReadingPlan::of($display, $capPx)->toArray(),
        ] + Survey::check($display, $timezone)->toArray();
    }
}
