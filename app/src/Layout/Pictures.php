<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use UpperPane\App\Media\MediaAsset;
use UpperPane\Core\Handover\Release;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Playback\Means;
use UpperPane\Core\Playback\RunSheet;

/** What a browser needs to draw a layout at any instant. */
final readonly class Pictures
{
    /** Where items come and go, what is due is written out for so long. */
    private const AHEAD_MS = 14 * 86_400_000;
    private const BEHIND_MS = 86_400_000;

    public function __construct(private EntityManagerInterface $entities, private Means $means, private ClockInterface $clock)
    {
    }

    /**
     * @param string $timezone of the display, which clocks without one of their own tell
     * @return array{run_sheet: array<string, mixed>, media: object} media: addresses by media id
     */
    public function of(Layout $layout, string $timezone = 'UTC'): array
    {
        $now = 1000 * $this->clock->now()->getTimestamp();

        return ['run_sheet' => RunSheet::of($layout, 0, $this->means->in($timezone), $now - self::BEHIND_MS, $now + self::AHEAD_MS), 'media' => (object) $this->addresses($layout)];
    }

    /** @return array<string, array{url: string, thumbnail: ?string, type: string}> */
    private function addresses(Layout $layout): array
    {
        $addresses = [];
        foreach ($this->assets($layout) as $asset) {
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

    /** @return list<MediaAsset> the media of a layout that are there */
    public function assets(Layout $layout): array
    {
        $ids = [];
        foreach (Release::mediaOf($layout) as $media) {
            if ($media->id !== null) {
                $ids[] = $media->id;
            }
        }

        return $ids === [] ? [] : $this->entities->getRepository(MediaAsset::class)->findBy(['id' => $ids]);
    }
}
