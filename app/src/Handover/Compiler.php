<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Symfony\Contracts\Service\ResetInterface;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Feeding;
use UpperPane\App\Layout\Pictures;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Media\Publisher;
use UpperPane\App\Storage\Bin;
use UpperPane\App\Text\HouseFaces;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\MediaMissing;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Handover\Release;
use UpperPane\Core\Handover\Sheet;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Playback\Programme;

/** Makes releases of what plays, and publishes them: each sheet once, however many displays play it. */
final class Compiler implements ResetInterface
{
    /** So many programmes are kept with their sheets, for the next display that plays the same on the same raster. */
    private const KEPT = 4;

    /** @var array<string, non-empty-array<string, Sheet>> by what they were compiled from, the last one last */
    private array $sheets = [];

    public function __construct(
        private readonly Programmes $programmes,
        private readonly Pictures $pictures,
        private readonly Surroundings $surroundings,
        private readonly Publisher $publisher,
        private readonly HouseFaces $faces,
        private readonly Toolchain $toolchain,
        private readonly Bin $bin,
        private readonly Feeding $feeding,
    ) {
    }

    public function reset(): void
    {
        $this->sheets = [];
    }

    /**
     * @param int $fromMs Unix ms; what comes and goes is written out for [from, to)
     * @param array{at_ms: int, begun: array<string, array{int, int}>}|array{} $carried what stands at an instant (RunSheet::begunAt)
     * @throws Refused where it cannot be worked out
     * @throws Problem where something in it is not there any more
     */
    public function release(Contents $contents, Display $display, int $fromMs, int $toMs, array $carried = []): Release
    {
        return $this->packed($contents, $this->programmes->of($contents, $display), $display, $fromMs, $toMs, $carried);
    }

    /**
     * The same of a programme that is composed already.
     *
     * @param array{at_ms: int, begun: array<string, array{int, int}>}|array{} $carried
     */
    public function packed(Contents $contents, Programme $programme, Display $display, int $fromMs, int $toMs, array $carried = []): Release
    {
        try {
            $sheets = $this->sheets($contents, $programme, $display, $fromMs, $toMs, $carried);

            return Release::of($display, $programme, $sheets, $this->files($programme, $sheets), $this->faces->all(), $fromMs, $toMs, $this->toolchain->coreBuild);
        } catch (MediaMissing $e) {
            throw new Problem(409, $e->reason->value, $e->getMessage() . ' Bring it in again, or take it out.');
        }
    }

    /**
     * What one overlay draws, published: a plane that is laid above what stands on a display.
     *
     * @param string $overlay its id
     * @param int $fromMs Unix ms; what comes and goes is written out for [from, to)
     * @return array{id: string, sheet: array<string, mixed>, media: list<array<string, mixed>>, faces: list<array<string, mixed>>} with the files that it takes
     * @throws Refused where it cannot be worked out
     */
    public function above(Programme $programme, string $overlay, int $fromMs, int $toMs): array
    {
        $sheet = Sheet::above($programme, $overlay, $this->surroundings, $fromMs, $toMs, $this->toolchain->coreBuild);
        $this->publisher->content('sheets', $sheet->json(), 'json');
        $files = $this->files($programme, [$overlay => $sheet]);
        $media = array_map(static fn (Media $one): array => ['id' => (string) $one->id, 'name' => $one->name] + ($files[(string) $one->id] ?? []), array_values($sheet->media()));
        $families = $sheet->families();

        return [
            'id' => $overlay,
            'sheet' => $sheet->named(),
            'media' => $media,
            'faces' => array_values(array_filter($this->faces->all(), static fn (array $face): bool => in_array($face['family'], $families, true))),
        ];
    }

    /** @return array{file: string, sha256: string, bytes: int} of the manifest; it and all that it names can be fetched from now on */
    public function published(Release $release): array
    {
        foreach ($release->sheets as $sheet) {
            $this->publisher->content('sheets', $sheet->json(), 'json');
        }
        [$file, $sha256] = $this->publisher->content('releases', $release->json(), 'json');

        return ['file' => $file, 'sha256' => $sha256, 'bytes' => strlen($release->json())];
    }

    /**
     * @param array<string, Sheet> $sheets that it has been compiled into: rows of data may mean more pictures
     * @return array<string, array{url: string, sha256: string, bytes: int, type: string}> by media id
     */
    public function files(Programme $programme, array $sheets = []): array
    {
        $files = [];
        $media = [...$programme->media(), ...array_merge(...array_map(static fn (Sheet $sheet): array => array_values($sheet->media()), array_values($sheets)), ...[[]])];
        foreach ($this->pictures->assets($media) as $asset) {
            if ($asset->state === MediaAsset::READY && $asset->file !== null && $asset->sha256 !== null) {
                $files[$asset->id] = ['url' => '/' . $asset->file, 'sha256' => $asset->sha256, 'bytes' => $asset->bytes, 'type' => $asset->type ?? ''];
            }
        }

        $missing = array_diff(array_filter(array_map(static fn (Media $one): ?string => $one->id, $media), is_string(...)), array_map(strval(...), array_keys($files)));

        return $files + $this->bin->media(array_values($missing));
    }

    /**
     * @param array{at_ms: int, begun: array<string, array{int, int}>}|array{} $carried
     * @return non-empty-array<string, Sheet>
     */
    private function sheets(Contents $contents, Programme $programme, Display $display, int $fromMs, int $toMs, array $carried): array
    {
        $raster = $display->raster();
        $key = implode(' ', [
            $contents->key(), $raster->width, $raster->height, $display->timezone, $display->pxPerMm(), $display->viewing->farthestEyeMm(), $fromMs, $toMs, $this->feeding->key(),
            json_encode($carried),
        ]);
        $sheets = $this->sheets[$key] ?? Sheet::each($programme, $this->surroundings, $fromMs, $toMs, $this->toolchain->coreBuild, $carried);
        unset($this->sheets[$key]);
        $this->sheets = array_slice($this->sheets, 1 - self::KEPT, null, true) + [$key => $sheets];

        return $sheets;
    }
}
