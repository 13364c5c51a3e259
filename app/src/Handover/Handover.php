<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\DesignLibrary;
use UpperPane\App\Layout\Pictures;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Media\Publisher;
use UpperPane\App\Playback\Pointers;
use UpperPane\App\Text\HouseFaces;
use UpperPane\App\Time\Schedules;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Survey;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Handover\Difference;
use UpperPane\Core\Handover\Release;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Media\Pixels;
use UpperPane\Core\Playback\Course;
use UpperPane\Core\Playback\Means;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Schedule\ScheduleChecks;

/** Builds releases, writes them down, and points the players to them. */
final readonly class Handover
{
    /** Where items come and go, what is due is written into a release for so long, without contact. */
    private const AHEAD_MS = 92 * 86_400_000;

    /** What is rehearsed is written out for so much more on either side, for a hand that leaves the span. */
    private const AROUND_MS = 86_400_000;

    public function __construct(
        private EntityManagerInterface $entities,
        private DesignLibrary $library,
        private Schedules $schedules,
        private Pictures $pictures,
        private Means $means,
        private Publisher $publisher,
        private Pointers $pointers,
        private HouseFaces $faces,
        private HandedReleaseRepository $releases,
        private ClockInterface $clock,
        private FaceMetrics $metrics,
        private Pixels $pixels,
    ) {
    }

    /**
     * What stands on a display as it is saved by now, else the schedule that rules there; null where there is neither.
     *
     * @param bool $scheduled the schedule first, also where something else stands
     */
    public function standing(SurveyedDisplay $display, bool $scheduled = false): ?Source
    {
        $current = $scheduled && $this->schedules->ruling($display) !== [] ? null : $display->current;
        $kind = $current === null ? 'schedule' : $current->sourceKind;
        $id = $current === null ? ($this->schedules->ruling($display)[0] ?? null)?->id : $current->sourceId;
        try {
            return $id === null ? null : $this->source(Node::root(['kind' => $kind, 'id' => $id]));
        } catch (Problem) {
            return null;
        }
    }

    /** @param Node $node `{"kind": "layout"|"playlist"|"media"|"schedule", "id", "revision"?}`; a revision named must be the newest */
    public function source(Node $node): Source
    {
        $node->object('kind', 'id', 'revision');
        $id = $node->field('id')->id();
        $kind = $node->field('kind')->oneOf('layout', 'playlist', 'media', 'schedule');
        if ($kind === 'media') {
            $asset = $this->entities->find(MediaAsset::class, $id) ?? throw Problem::notFound('This media');
            $media = $asset->media() ?? throw new Problem(409, 'media.unready', sprintf('"%s" is not ready to be played.', $asset->name));

            return new Source($kind, $id, null, $asset->name, static fn (Size $raster): Layout => Layout::fullScreen($id, $asset->name, $raster, Playlist::ofMedia($media)));
        }
        $design = $this->entities->find(Design::class, $id);
        if ($design === null || $design->kind->value !== $kind) {
            throw Problem::notFound("This $kind");
        }
        $revision = $node->optional('revision')?->int(1) ?? $design->revision;
        if ($revision !== $design->revision) {
            throw new Problem(409, 'revision.stale', sprintf('"%s" is at revision %d by now, you looked at %d. Look at what changed, then hand over.', $design->name, $design->revision, $revision));
        }

        return new Source($kind, $id, $revision, $design->name, match ($design->kind) {
            DesignKind::Layout => fn (Size $raster): Layout => $this->library->layout($design->document)->for($raster),
            DesignKind::Playlist => fn (Size $raster): Layout => $this->library->fullScreen($design->document, $raster),
            DesignKind::Schedule => static fn (Size $raster): Layout => throw new \LogicException('A schedule is no single layout.'),
        }, $design->kind === DesignKind::Schedule ? $design : null);
    }

    public function offer(Source $source, SurveyedDisplay $target): Offer
    {
        $display = $target->display();
        // By the day, so that looking twice gives the same bytes.
        $today = 1000 * (intdiv($this->clock->now()->getTimestamp(), 86_400) - 1) * 86_400;
        $programme = $this->programmeOf($source, $target);
        $layouts = $programme === null ? [($source->layout)($display->raster())] : $programme->layouts();
        $files = $this->files($layouts);
        $release = $this->packed($target, $programme, $layouts, $files, $today, $today + self::AHEAD_MS);

        return new Offer(
            $target,
            $release,
            Matching::of($programme === null ? $layouts[0]->canvas : $display->raster(), $display->raster()),
            $programme === null
                ? new Findings([...self::stops($display, $target->place->zone()), ...Checks::run($layouts[0], $display, $this->metrics, $this->pixels)->all])
                : new Findings([...self::stops($display, $target->place->zone()), ...$this->booked($programme, $display, $today)]),
            [
                ...($target->current?->shape !== null && $target->current->shape !== $target->shape ? ['The display was surveyed anew: its raster, panels or outputs are others.'] : []),
                ...($programme === null ? Difference::between($this->layoutOf($target->current), $layouts[0]) : Difference::ofSchedules($this->scheduleOf($target->current), $programme->schedule)),
                ...self::plannedOn($target->current, $release),
            ],
            array_sum(array_column(array_diff_key($files, $this->there($target->current)), 'bytes')),
        );
    }

    /** @return list<string> how much further it is planned than what stands */
    private static function plannedOn(?HandedRelease $current, Release $release): array
    {
        $planned = $release->planned();
        $until = $planned === null ? null : gmdate('j F Y', intdiv($planned->untilMs, 1000));
        $before = $current?->plannedUntil?->format('j F Y');

        return $until === null || $before === null || $until === $before ? [] : ["Planned until $until, was until $before."];
    }

    /**
     * What would be handed over for another span, written nowhere: to look at it.
     *
     * @param int $fromMs Unix ms
     */
    public function rehearsed(Source $source, SurveyedDisplay $target, int $fromMs, int $toMs): Release
    {
        $programme = $this->programmeOf($source, $target);
        $layouts = $programme === null ? [($source->layout)($target->display()->raster())] : $programme->layouts();

        return $this->packed($target, $programme, $layouts, $this->files($layouts), $fromMs - self::AROUND_MS, $toMs + self::AROUND_MS);
    }

    /**
     * All changes of a span in words.
     *
     * @param int $fromMs Unix ms
     */
    public function course(Source $source, SurveyedDisplay $target, int $fromMs, int $toMs, bool $items): Course
    {
        $programme = $this->programmeOf($source, $target);
        $display = $target->display();

        return $programme === null
            ? Course::ofLayout(($source->layout)($display->raster()), $display->timezone, $fromMs, $toMs, items: $items)
            : Course::ofProgramme($programme, $fromMs, $toMs, $items);
    }

    /**
     * @param list<Layout> $layouts
     * @param array<string, array{url: string, sha256: string, bytes: int, type: string}> $files
     */
    private function packed(SurveyedDisplay $target, ?Programme $programme, array $layouts, array $files, int $fromMs, int $toMs): Release
    {
        try {
            return $programme === null
                ? Release::of($target->display(), $layouts[0], $files, $this->faces->all(), $this->means, $fromMs, $toMs)
                : Release::ofProgramme($target->display(), $programme, $files, $this->faces->all(), $this->means, $fromMs, $toMs);
        } catch (\DomainException $e) {
            throw new Problem(409, 'media.missing', $e->getMessage() . ' Bring it in again, or take it out.');
        }
    }

    /** @return ?Programme null where the source is no schedule */
    public function programmeOf(Source $source, SurveyedDisplay $target): ?Programme
    {
        $design = $source->schedule;
        if ($design === null) {
            return null;
        }
        if (!in_array($target, $this->schedules->displays($design), true)) {
            throw new Problem(409, 'schedule.elsewhere', sprintf('"%s" does not rule on "%s". Book on that display, or on a place that it hangs in.', $design->name, $target->display()->name));
        }

        return $this->schedules->programme($target, $this->schedules->on($target) ?? Schedule::fromArray($design->document));
    }

    /** @return list<Finding> what is found in all that is booked, and in the bookings for as long as the release is planned */
    private function booked(Programme $programme, Display $display, int $fromMs): array
    {
        $findings = [];
        foreach ($programme->whole as $layout) {
            foreach (Checks::run($layout, $display, $this->metrics, $this->pixels)->all as $finding) {
                $findings[] = $finding->within($layout->name);
            }
        }
        // What plays in a zone is as large as the zone, not as the display.
        foreach (array_merge(...array_values($programme->zones)) as $layout) {
            foreach (Checks::run($layout, null, $this->metrics, $this->pixels)->all as $finding) {
                $findings[] = $finding->within($layout->name);
            }
        }

        return [...$findings, ...$programme->findings(), ...ScheduleChecks::run($programme->schedule, $programme->clock, $fromMs, $fromMs + self::AHEAD_MS)->all];
    }

    /**
     * @param list<Layout> $layouts
     * @return array<string, array{url: string, sha256: string, bytes: int, type: string}> by media id
     */
    private function files(array $layouts): array
    {
        $files = [];
        foreach (array_merge(...array_map($this->pictures->assets(...), $layouts)) as $asset) {
            if ($asset->state === MediaAsset::READY && $asset->file !== null && $asset->sha256 !== null) {
                $files[$asset->id] = ['url' => '/' . $asset->file, 'sha256' => $asset->sha256, 'bytes' => $asset->bytes, 'type' => $asset->type ?? ''];
            }
        }

        return $files;
    }

    /** @return array<string, int> ids of the media that a release has brought, as keys */
    private function there(?HandedRelease $release): array
    {
        $layout = $this->layoutOf($release);
        $schedule = $layout === null ? $this->scheduleOf($release) : null;
        $layouts = match (true) {
            $layout !== null => [$layout],
            $schedule !== null && $release !== null => $this->schedules->programme($release->display, $schedule)->layouts(),
            default => [],
        };
        $media = array_merge(...array_map(Release::mediaOf(...), $layouts));

        return array_flip(array_filter(array_map(static fn (Media $one): ?string => $one->id, $media)));
    }

    private function scheduleOf(?HandedRelease $release): ?Schedule
    {
        try {
            return $release?->sourceKind === 'schedule' ? Schedule::fromArray($release->document) : null;
        } catch (DocumentRefused) {
            return null;
        }
    }

    /** @return list<Finding> what stops the display itself */
    private static function stops(Display $display, ?string $timezone): array
    {
        return array_values(array_filter(Survey::check($display, $timezone)->all, static fn (Finding $finding): bool => $finding->level === Level::Stop));
    }

    /**
     * @param list<Offer> $offers without stops
     * @return list<HandedRelease>
     */
    public function handOver(Source $source, array $offers, ?string $by): array
    {
        // The bytes first: until a pointer names them nobody plays them, and writing them twice is harmless.
        $files = array_map(fn (Offer $offer): array => $this->publisher->content('releases', $offer->release->json(), 'json'), $offers);
        $releases = $this->entities->wrapInTransaction(function () use ($source, $offers, $files, $by): array {
            $releases = [];
            foreach ($offers as $index => $offer) {
                $this->entities->lock($offer->display, LockMode::PESSIMISTIC_WRITE);
                [$file, $sha256] = $files[$index];
                $planned = $offer->release->planned();
                $release = new HandedRelease(
                    $offer->display,
                    $this->releases->nextNumber($offer->display),
                    $sha256,
                    $file,
                    strlen($offer->release->json()),
                    $source->kind,
                    $source->id,
                    $source->revision,
                    $source->name,
                    $this->clock->now(),
                    $by,
                    $this->document($source),
                    $offer->display->shape,
                    $this->parts($source, $offer->display),
                    $planned === null ? null : new \DateTimeImmutable('@' . intdiv($planned->untilMs, 1000)),
                    $planned?->then,
                );
                $this->entities->persist($release);
                $offer->display->current = $release;
                $releases[] = $release;
            }

            return $releases;
        });
        foreach ($offers as $offer) {
            $this->pointers->write($offer->display);
        }

        return $releases;
    }

    /** @return list<array{id: string, revision: int}> every design that plays: the schedules, what they book, and what is in that */
    private function parts(Source $source, SurveyedDisplay $target): array
    {
        $wanted = $source->schedule === null
            ? ($source->revision === null ? [] : [$source->id])
            : array_map(static fn (Design $design): string => $design->id, $this->schedules->ruling($target));
        $parts = [];
        while ($wanted !== []) {
            $next = [];
            foreach ($this->entities->getRepository(Design::class)->findBy(['id' => $wanted]) as $design) {
                $parts[$design->id] = ['id' => $design->id, 'revision' => $design->revision];
                array_push($next, ...$design->named());
            }
            $wanted = array_values(array_diff(array_unique($next), array_keys($parts)));
        }
        ksort($parts, SORT_STRING);

        return array_values($parts);
    }

    /** @return array<mixed> */
    private function document(Source $source): array
    {
        return match ($source->kind) {
            'media' => $this->entities->find(MediaAsset::class, $source->id)?->media()?->toArray() ?? [],
            default => $this->entities->find(Design::class, $source->id)->document ?? [],
        };
    }

    /** The layout as it was handed over; null where there is none, or where what it refers to is gone. */
    private function layoutOf(?HandedRelease $release): ?Layout
    {
        if ($release === null) {
            return null;
        }
        $raster = $release->display->display()->raster();
        try {
            /** @var array<string, mixed> $document */
            $document = $release->document;

            return match ($release->sourceKind) {
                'schedule' => null,
                'layout' => $this->library->layout($document)->for($raster),
                'playlist' => $this->library->fullScreen($document, $raster),
                default => Layout::fullScreen($release->sourceId, $release->name, $raster, Playlist::ofMedia(Media::fromNode(Node::root($document)))),
            };
        } catch (DocumentRefused) {
            return null;
        }
    }
}
