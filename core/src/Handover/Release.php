<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Feed;
use UpperPane\Core\Document\MediaMissing;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Playback\OverlayTrack;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Units\Instant;

/**
 * One handed-over version: a manifest of the sheets and files that it takes, in planes (`upper-pane/release@2`, docs/formats/release.md).
 *
 * The same inputs give the same bytes, so no clock and no counter stands in it, and nothing that tells alike displays apart: they share it.
 */
final readonly class Release
{
    public const FORMAT = 'upper-pane/release@2';

    /** In one piece, as pages of players have it that read no manifests. */
    public const WHOLE = 'upper-pane/release@1';

    private string $json;

    /**
     * @param array<string, mixed> $content
     * @param array<string, Sheet> $sheets by hash
     */
    private function __construct(private array $content, public array $sheets, private string $displayId, private string $displayName)
    {
        $this->json = json_encode($content, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION);
    }

    /**
     * What a display plays; where anything in it comes and goes it is planned for [from, to), and holds for that long without contact.
     *
     * @param non-empty-array<string, Sheet> $tracks what each track of the programme plays (Sheet::each), compiled for [from, to)
     * @param array<string, array{url: string, sha256: string, bytes: int, type: string}> $media the file of each media id
     * @param list<array{family: string, weight: int, url: string, sha256: string, bytes: int, cap_share?: float}> $faces type faces of the house
     * @param int $fromMs UTC ms
     * @param string $build of the core that compiles it
     * @throws MediaMissing where something that it shows has no file
     */
    public static function of(
        Display $display,
        Programme $programme,
        array $tracks,
        array $media,
        array $faces,
        int $fromMs = 0,
        int $toMs = 0,
        string $build = '',
    ): self {
        $used = [];
        $ofRows = array_merge(...array_map(static fn (Sheet $sheet): array => array_values($sheet->media()), array_values($tracks)));
        foreach ([...$programme->media(), ...$ofRows] as $one) {
            if ($one->id !== null) {
                $used[$one->id] = ['id' => $one->id, 'name' => $one->name]
                    + ($media[$one->id] ?? throw MediaMissing::because(Reason::MediaMissing, sprintf('The media "%s" (%s) has no file.', $one->name, $one->id), '/media'));
            }
        }
        ksort($used, SORT_STRING);
        $families = array_fill_keys($programme->families(), true);
        [$planes, $sheets, $isPlanned] = [['above' => []], [], false];
        $lies = [];
        foreach ($programme->above as $track) {
            $lies += $track instanceof OverlayTrack ? [$track->id() => $track->lies()] : [];
        }
        $span = ['from' => (string) Instant::ofMs($fromMs), 'until' => (string) Instant::ofMs($toMs)];
        foreach ($tracks as $track => $sheet) {
            $sheets += $sheet->all();
            $isPlanned = $isPlanned || $sheet->isPlanned();
            $plane = ['sheet' => $sheet->named(), 'from' => null, 'until' => null];
            if ($track === '') {
                $planes = ['base' => $plane] + $planes;
            } else {
                $planes['above'][] = ['id' => $track] + (isset($lies[$track]) ? ['lies' => $lies[$track]] : []) + $plane;
            }
        }
        $standby = $programme->base->schedule?->standby;

        return new self([
            'format' => self::FORMAT,
            'build' => $build,
            'plays' => ['id' => $programme->id, 'name' => $programme->name],
            'display' => [
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
        ] + ($isPlanned ? ['planned' => $span + ['then' => $standby === null ? null : $programme->base->whole[$standby->key()]->name]] : []) + [
            'match' => Matching::of($programme->canvas(), $display->raster())->toArray(),
            'planes' => $planes + ['data' => []],
            'sheets' => array_map(static fn (Sheet $sheet): array => $sheet->named(), array_values($sheets)),
            'media' => array_values($used),
            'faces' => array_values(array_filter($faces, static fn (array $face): bool => isset($families[$face['family']]))),
        ], $sheets, $display->id, $display->name);
    }

    /** The bytes of the manifest that are published. */
    public function json(): string
    {
        return $this->json;
    }

    /** SHA-256 of these bytes, in hex. */
    public function hash(): string
    {
        return hash('sha256', $this->json);
    }

    /** The span that it is planned for; null where it plays the same without end. */
    public function planned(): ?Planned
    {
        $planned = $this->content['planned'] ?? null;
        if (!is_array($planned) || !is_string($planned['until'] ?? null)) {
            return null;
        }

        return new Planned(Instant::parse($planned['until'])->ms, is_string($planned['then'] ?? null) ? $planned['then'] : null);
    }

    /** @return array<string, mixed> the manifest */
    public function toArray(): array
    {
        return $this->content;
    }

    /** @return array<string, mixed> all of it in one piece (`upper-pane/release@1`) */
    public function whole(): array
    {
        return self::inOne($this->content, fn (string $sha256): array => $this->sheets[$sha256]->content, $this->displayId, $this->displayName);
    }

    /**
     * A manifest and its sheets in one piece, for one display.
     *
     * @param array<mixed> $manifest
     * @param \Closure(string): array<mixed> $sheet the content of the sheet of a hash
     * @return array<string, mixed>
     */
    public static function inOne(array $manifest, \Closure $sheet, string $displayId, string $displayName): array
    {
        $node = Node::root($manifest);
        $planes = $node->field('planes');
        $run = [];
        foreach ([$planes->field('base'), ...$planes->field('above')->items()] as $plane) {
            $one = Sheet::inOne($sheet($plane->field('sheet')->field('sha256')->text()), $sheet);
            $run = $run === [] ? $one : ['layers' => [...(array) $run['layers'], ...(array) $one['layers']]] + $run;
        }
        $planned = $node->optional('planned');

        return [
            'format' => self::WHOLE,
            'display' => ['id' => $displayId, 'name' => $displayName] + $node->field('display')->fields(),
            'layout' => $node->field('plays')->value,
        ] + ($planned === null ? [] : ['planned' => ['from' => $planned->field('from')->text(), 'to' => $planned->field('until')->text(), 'then' => $planned->field('then')->value]]) + [
            'match' => $node->field('match')->value,
            'run_sheet' => ['format' => RunSheet::FORMAT] + array_diff_key($run, ['format' => 1, 'build' => 1]),
            'media' => $node->field('media')->value,
            'faces' => $node->field('faces')->value,
        ];
    }
}
