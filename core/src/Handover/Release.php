<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Feed;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Picture;
use UpperPane\Core\Layout\Worded;
use UpperPane\Core\Layout\Zone;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Playback\Means;
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
     * @param array<string, array{url: string, sha256: string, bytes: int, type: string}> $media the file of each media id
     * @param list<array{family: string, weight: int, url: string, sha256: string, bytes: int, cap_share?: float}> $faces type faces of the house
     * @param ?Means $means who measures and draws; the time zone is that of the display
     * @param int $fromMs UTC ms; where items come and go, what is due is written out for [from, to)
     */
    public static function of(Display $display, Layout $layout, array $media, array $faces, ?Means $means = null, int $fromMs = 0, int $toMs = 0): self
    {
        $sheet = RunSheet::of($layout, 0, ($means ?? new Means())->in($display->timezone), $fromMs, $toMs);

        return self::packed($display, [$layout], ['layout' => ['id' => $layout->id, 'name' => $layout->name]], $layout->canvas, $sheet, $media, $faces);
    }

    /**
     * What a display plays by its schedule in [from, to); it is valid for that long without contact.
     *
     * @param array<string, array{url: string, sha256: string, bytes: int, type: string}> $media the file of each media id
     * @param list<array{family: string, weight: int, url: string, sha256: string, bytes: int, cap_share?: float}> $faces type faces of the house
     * @param int $fromMs UTC ms
     */
    public static function ofProgramme(Display $display, Programme $programme, array $media, array $faces, ?Means $means, int $fromMs, int $toMs): self
    {
        $schedule = $programme->schedule;
        $head = [
            'layout' => ['id' => $schedule->id, 'name' => $schedule->name],
            'planned' => [
                'from' => (string) Instant::ofMs($fromMs),
                'to' => (string) Instant::ofMs($toMs),
                'then' => $schedule->standby === null ? null : $programme->whole[$schedule->standby->key()]->name,
            ],
        ];

        return self::packed($display, $programme->layouts(), $head, $programme->raster, RunSheet::ofProgramme($programme, $means, $fromMs, $toMs), $media, $faces);
    }

    /**
     * @param list<Layout> $layouts
     * @param array<string, mixed> $head
     * @param array<string, mixed> $sheet
     * @param array<string, array{url: string, sha256: string, bytes: int, type: string}> $media
     * @param list<array{family: string, weight: int, url: string, sha256: string, bytes: int, cap_share?: float}> $faces
     */
    private static function packed(Display $display, array $layouts, array $head, Size $canvas, array $sheet, array $media, array $faces): self
    {
        $used = [];
        foreach (array_merge(...array_map(self::mediaOf(...), $layouts)) as $one) {
            if ($one->id !== null) {
                $used[$one->id] = ['id' => $one->id, 'name' => $one->name]
                    + ($media[$one->id] ?? throw new \DomainException(sprintf('The media "%s" (%s) has no file.', $one->name, $one->id)));
            }
        }
        ksort($used, SORT_STRING);
        $families = array_fill_keys(array_merge(...array_map(self::familiesOf(...), $layouts)), true);

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
            'match' => Matching::of($canvas, $display->raster())->toArray(),
            'run_sheet' => $sheet,
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

    /** @return list<Media> every picture and film of a layout and the layouts in it, each once */
    public static function mediaOf(Layout $layout): array
    {
        $found = [];
        foreach ($layout->visible()->elements as $element) {
            if ($element instanceof Picture) {
                $found[] = $element->media;
            } elseif ($element instanceof Zone) {
                foreach ($element->playlist->enabled() as $item) {
                    $found = [...$found, ...($item->media !== null ? [$item->media] : self::mediaOf($element->layouts[$item->id]))];
                }
            }
        }
        $once = [];
        foreach ($found as $media) {
            $once[$media->id ?? $media->name] = $media;
        }

        return array_values($once);
    }

    /** @return list<string> type families of a layout and the layouts in it */
    private static function familiesOf(Layout $layout): array
    {
        $families = [];
        foreach ($layout->visible()->elements as $element) {
            if ($element instanceof Worded) {
                foreach ($element->styles() as $style) {
                    $families[$style->family] = true;
                }
            } elseif ($element instanceof Zone) {
                foreach ($element->layouts as $nested) {
                    $families += array_fill_keys(self::familiesOf($nested), true);
                }
            }
        }

        return array_keys($families);
    }
}
