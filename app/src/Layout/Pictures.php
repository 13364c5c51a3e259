<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Psr\Clock\ClockInterface;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Media\MediaAssets;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;

/** What a browser needs to draw a layout at any instant. */
final readonly class Pictures
{
    /** Where items come and go, what is due is written out for so long. */
    private const AHEAD_MS = 14 * 86_400_000;
    private const BEHIND_MS = 86_400_000;
    /** Rows of data come and go all the time: a picture of a list is of now, and holds for so long. */
    private const WHILE_MS = 6 * 3_600_000;

    public function __construct(private MediaAssets $media, private Surroundings $surroundings, private ClockInterface $clock)
    {
    }

    /**
     * @param string $timezone of the display, which clocks without one of their own tell
     * @param bool $isOfNow whether it is looked at as it is by now, and not at other times as well
     * @return array{run_sheet: array<string, mixed>, media: object} media: addresses by media id
     */
    public function of(Composed $layout, string $timezone = 'UTC', bool $isOfNow = false): array
    {
        $now = 1000 * $this->clock->now()->getTimestamp();
        $isShort = $isOfNow && $layout->tellsData();
        [$from, $to] = [$now - ($isShort ? 0 : self::BEHIND_MS), $now + ($isShort ? self::WHILE_MS : self::AHEAD_MS)];

        $sheet = RunSheet::of(Programme::endless($layout, $timezone), $this->surroundings->at($now), $from, $to);
        $ofRows = is_array($sheet['layers']) ? array_values(RunSheet::mediaIn($sheet['layers'])) : [];

        return ['run_sheet' => $sheet, 'media' => (object) $this->addresses([...$layout->media(), ...$ofRows])];
    }

    /**
     * The same of all that plays on a display.
     *
     * @param int $spanMs for how long from now
     * @return array{run_sheet: array<string, mixed>, media: object}
     */
    public function ofProgramme(Programme $programme, int $spanMs, ?int $fromMs = null): array
    {
        $now = $fromMs ?? 1000 * $this->clock->now()->getTimestamp();
        $sheet = RunSheet::of($programme, $this->surroundings->at($now), $now, $now + $spanMs);
        $ofRows = is_array($sheet['layers']) ? array_values(RunSheet::mediaIn($sheet['layers'])) : [];

        return ['run_sheet' => $sheet, 'media' => (object) $this->addresses([...$programme->media(), ...$ofRows])];
    }

    /**
     * @param list<Media> $media
     * @return array<string, array{url: string, thumbnail: ?string, type: string}>
     */
    private function addresses(array $media): array
    {
        $addresses = [];
        foreach ($this->assets($media) as $asset) {
            if ($asset->file !== null) {
                $addresses[$asset->id] = [
                    'url' => '/' . $asset->file,
                    'thumbnail' => $asset->thumbnail === null ? null : '/' . $asset->thumbnail,
                    'type' => $asset->type ?? '',
                ];
            }
        }

        return $addresses;
    }

    /**
     * @param list<Media> $media
     * @return list<MediaAsset> those of them that are there
     */
    public function assets(array $media): array
    {
        $ids = array_values(array_filter(array_map(static fn (Media $one): ?string => $one->id, $media)));

        return $this->media->those($ids);
    }
}
