<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Feed;
use UpperPane\Core\Document\MediaMissing;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Units\Instant;

/**
 * One immutable handed-over version for a display. The same inputs give the same bytes, so no clock and no counter stands in it.
 */
final readonly class Release
{
    public const FORMAT = 'upper-pane/release@1';

    /** @param array<string, mixed> $content */
    private function __construct(private array $content)
    {
    }

    /**
     * What a display plays; by a schedule in [from, to), and it is valid for that long without contact.
     *
     * @param array<string, array{url: string, sha256: string, bytes: int, type: string}> $media the file of each media id
     * @param list<array{family: string, weight: int, url: string, sha256: string, bytes: int, cap_share?: float}> $faces type faces of the house
     * @param ?Surroundings $surroundings who measures and draws; the time zone is that of the display
     * @param int $fromMs UTC ms; where items come and go, what is due is written out for [from, to)
     * @throws MediaMissing where something that it shows has no file
     */
    public static function of(Display $display, Programme $programme, array $media, array $faces, ?Surroundings $surroundings = null, int $fromMs = 0, int $toMs = 0): self
    {
        $head = ['layout' => ['id' => $programme->id, 'name' => $programme->name]];
        $schedule = $programme->base->schedule;
        if ($schedule !== null) {
            $head['planned'] = [
                'from' => (string) Instant::ofMs($fromMs),
                'to' => (string) Instant::ofMs($toMs),
                'then' => $schedule->standby === null ? null : $programme->base->whole[$schedule->standby->key()]->name,
            ];
        }
        $used = [];
        foreach ($programme->media() as $one) {
            if ($one->id !== null) {
                $used[$one->id] = ['id' => $one->id, 'name' => $one->name]
                    + ($media[$one->id] ?? throw MediaMissing::because(Reason::MediaMissing, sprintf('The media "%s" (%s) has no file.', $one->name, $one->id), '/media'));
            }
        }
        ksort($used, SORT_STRING);
        $families = array_fill_keys($programme->families(), true);

        return new self([
            'format' => self::FORMAT,
            'display' => [
                'id' => $display->id,
                'name' => $display->name,
                'timezone' => $display->timezone,
                'raster' => $display->raster()->toArray(),
                'outputs' => array_map(static fn (Feed $feed): array => [
                    'player' => $feed->player,
                    'output' => $feed->output,
                    'panels' => $feed->panels,
                    'raster' => $feed->raster->toArray(),
                    'rotation' => $feed->rotation->value,
                    'source' => $feed->source->toArray(),
                ], Feed::of($display)),
            ],
        ] + $head + [
            'match' => Matching::of($programme->canvas(), $display->raster())->toArray(),
            'run_sheet' => RunSheet::of($programme, $surroundings, $fromMs, $toMs),
            'media' => array_values($used),
            'faces' => array_values(array_filter($faces, static fn (array $face): bool => isset($families[$face['family']]))),
        ]);
    }

    /** The bytes that are published. */
    public function json(): string
    {
        return json_encode($this->content, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION);
    }

    /** Until when it says what plays by a schedule; null where it plays without end. */
    public function planned(): ?Planned
    {
        $planned = $this->content['planned'] ?? null;
        if (!is_array($planned) || !is_string($planned['to'] ?? null)) {
            return null;
        }

        return new Planned(Instant::parse($planned['to'])->ms, is_string($planned['then'] ?? null) ? $planned['then'] : null);
    }

    /** SHA-256 of the bytes, in hex. */
    public function hash(): string
    {
        return hash('sha256', $this->json());
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return $this->content;
    }
}
