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
use UpperPane\Core\Document\MediaMissing;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Handover\Release;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Playback\Course;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Schedule\ScheduleChecks;

/** Builds releases, writes them down, and points the players to them. */
final readonly class Handover
{
    /** Where items come and go, what is due is written into a release for so long, without contact. */
    public const AHEAD_MS = 92 * 86_400_000;

    /** What is rehearsed is written out for so much more on either side, for a hand that leaves the span. */
    private const AROUND_MS = 86_400_000;

    public function __construct(
        private EntityManagerInterface $entities,
        private DesignLibrary $library,
        private Schedules $schedules,
        private Pictures $pictures,
        private Surroundings $surroundings,
        private Publisher $publisher,
        private Pointers $pointers,
        private HouseFaces $faces,
        private HandedReleaseRepository $releases,
        private ClockInterface $clock,
    ) {
    }

    /**
     * What stands on a display as it is saved by now, else the schedule that rules there; null where there is neither.
     *
     * @param bool $scheduled the schedule first, also where something else stands
     */
    public function standing(SurveyedDisplay $display, bool $scheduled = false): ?Playable
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
    public function source(Node $node): Playable
    {
        $node->object('kind', 'id', 'revision');
        $id = $node->field('id')->id();
        $kind = $node->field('kind')->oneOf('layout', 'playlist', 'media', 'schedule');
        if ($kind === 'media') {
            $asset = $this->entities->find(MediaAsset::class, $id) ?? throw Problem::notFound('This media');
            $media = $asset->media() ?? throw new Problem(409, 'media.unready', sprintf('"%s" is not ready to be played.', $asset->name));

            return new Playable($kind, $id, null, $asset->name, static fn (Size $raster): Composed => Composer::over()->media($media, $raster, $id));
        }
        $design = $this->entities->find(Design::class, $id);
        if ($design === null || $design->kind->value !== $kind) {
            throw Problem::notFound("This $kind");
        }
        $revision = $node->optional('revision')?->int(1) ?? $design->revision;
        if ($revision !== $design->revision) {
            throw new Problem(409, 'revision.stale', sprintf('"%s" is at revision %d by now, you looked at %d. Look at what changed, then hand over.', $design->name, $design->revision, $revision));
        }

        return new Playable($kind, $id, $revision, $design->name, match ($design->kind) {
            DesignKind::Layout => fn (Size $raster): Composed => $this->library->layout($design->document)->for($raster),
            DesignKind::Playlist => fn (Size $raster): Composed => $this->library->fullScreen($design->document, $raster),
            DesignKind::Schedule => static fn (Size $raster): Composed => throw new \LogicException('A schedule is no single layout.'),
        }, $design->kind === DesignKind::Schedule ? $design : null);
    }

    public function offer(Playable $source, SurveyedDisplay $target): Offer
    {
        $display = $target->display();
        // By the day, so that looking twice gives the same bytes.
        $today = 1000 * (intdiv($this->clock->now()->getTimestamp(), 86_400) - 1) * 86_400;
        $programme = $this->programmeOf($source, $target);
        $files = $this->files($programme);
        $release = $this->packed($target, $programme, $files, $today, $today + self::AHEAD_MS);

        return new Offer(
            $target,
            $release,
            Matching::of($programme->canvas(), $display->raster()),
            new Findings([...self::stops($display, $target->place->zone()), ...$this->found($programme, $display, $today)]),
            [
                ...($target->current?->shape !== null && $target->current->shape !== $target->shape ? ['The display was surveyed anew: its raster, panels or outputs are others.'] : []),
                ...$programme->changesFrom($this->handedOver($target->current)),
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
    public function rehearsed(Playable $source, SurveyedDisplay $target, int $fromMs, int $toMs): Release
    {
        $programme = $this->programmeOf($source, $target);

        return $this->packed($target, $programme, $this->files($programme), $fromMs - self::AROUND_MS, $toMs + self::AROUND_MS);
    }

    /**
     * All changes of a span in words.
     *
     * @param int $fromMs Unix ms
     */
    public function course(Playable $source, SurveyedDisplay $target, int $fromMs, int $toMs, bool $items): Course
    {
        return Course::of($this->programmeOf($source, $target), $fromMs, $toMs, $items);
    }

    /** @param array<string, array{url: string, sha256: string, bytes: int, type: string}> $files */
    private function packed(SurveyedDisplay $target, Programme $programme, array $files, int $fromMs, int $toMs): Release
    {
        try {
            return Release::of($target->display(), $programme, $files, $this->faces->all(), $this->surroundings, $fromMs, $toMs);
        } catch (MediaMissing $e) {
            throw new Problem(409, $e->reason->value, $e->getMessage() . ' Bring it in again, or take it out.');
        }
    }

    public function programmeOf(Playable $source, SurveyedDisplay $target): Programme
    {
        $design = $source->schedule;
        if ($design === null) {
            $display = $target->display();

            return Programme::endless(($source->composed)($display->raster()), $display->timezone);
        }
        if (!in_array($target, $this->schedules->displays($design), true)) {
            throw new Problem(409, 'schedule.elsewhere', sprintf('"%s" does not rule on "%s". Book on that display, or on a place that it hangs in.', $design->name, $target->display()->name));
        }

        return $this->schedules->programme($target, $this->schedules->on($target) ?? Schedule::fromArray($design->document));
    }

    /** @return list<Finding> what is found in all that plays, and in the bookings for as long as the release is planned */
    private function found(Programme $programme, Display $display, int $fromMs): array
    {
        $schedule = $programme->base->schedule;
        $surroundings = $this->surroundings->at($fromMs);
        $onDisplay = $surroundings->on($display);
        $findings = [];
        foreach ($programme->base->whole as $layout) {
            foreach (Checks::run($layout, $onDisplay)->all as $finding) {
                $findings[] = $schedule === null ? $finding : $finding->within($layout->name);
            }
        }
        // What plays in a zone is as large as the zone, not as the display.
        foreach (array_merge(...array_values($programme->base->zones)) as $layout) {
            foreach (Checks::run($layout, $surroundings->in($display->timezone))->all as $finding) {
                $findings[] = $finding->within($layout->name);
            }
        }

        return [...$findings, ...$programme->findings(), ...($schedule === null ? [] : ScheduleChecks::run($schedule, $programme->clock(), $fromMs, $fromMs + self::AHEAD_MS)->all)];
    }

    /** @return array<string, array{url: string, sha256: string, bytes: int, type: string}> by media id */
    private function files(Programme $programme): array
    {
        $files = [];
        foreach ($this->pictures->assets($programme->media()) as $asset) {
            if ($asset->state === MediaAsset::READY && $asset->file !== null && $asset->sha256 !== null) {
                $files[$asset->id] = ['url' => '/' . $asset->file, 'sha256' => $asset->sha256, 'bytes' => $asset->bytes, 'type' => $asset->type ?? ''];
            }
        }

        return $files;
    }

    /** @return array<string, int> ids of the media that a release has brought, as keys */
    private function there(?HandedRelease $release): array
    {
        return array_flip(array_filter(array_map(static fn (Media $one): ?string => $one->id, $this->handedOver($release)?->media() ?? [])));
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
    public function handOver(Playable $source, array $offers, ?string $by): array
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
    private function parts(Playable $source, SurveyedDisplay $target): array
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
    private function document(Playable $source): array
    {
        return match ($source->kind) {
            'media' => $this->entities->find(MediaAsset::class, $source->id)?->media()?->toArray() ?? [],
            default => $this->entities->find(Design::class, $source->id)->document ?? [],
        };
    }

    /** What plays on a display by a release; null where there is none, or where what it refers to is gone. */
    private function handedOver(?HandedRelease $release): ?Programme
    {
        if ($release === null) {
            return null;
        }
        $display = $release->display->display();
        $raster = $display->raster();
        /** @var array<string, mixed> $document */
        $document = $release->document;
        // With all that is in it as it was then: what changed within is a change too.
        $library = $this->library->at($release->parts ?? []);
        try {
            return match ($release->sourceKind) {
                'schedule' => $this->schedules->programme($release->display, $this->ruledThen($release, $library), $library),
                'layout' => Programme::endless($library->layout($document)->for($raster), $display->timezone),
                'playlist' => Programme::endless($library->fullScreen($document, $raster), $display->timezone),
                default => Programme::endless(Composer::over()->media(Media::fromNode(Node::root($document)), $raster, $release->sourceId), $display->timezone),
            };
        } catch (Refused | Problem) {
            return null;
        }
    }

    /**
     * What a release was planned by: the schedules that ruled there, as they were, the nearest first.
     *
     * @throws Refused
     */
    private function ruledThen(HandedRelease $release, DesignLibrary $library): Schedule
    {
        /** @var array<string, mixed> $own */
        $own = $release->document;
        [$found, $then] = [[], array_column($release->parts ?? [], 'id')];
        foreach ($this->schedules->ruling($release->display) as $design) {
            if ($design->id === $release->sourceId || in_array($design->id, $then, true)) {
                $found[$design->id] = Schedule::fromArray($design->id === $release->sourceId ? $own : $library->document($design->id, DesignKind::Schedule) ?? $design->document);
            }
        }
        // One that rules there no more did so then.
        $found = isset($found[$release->sourceId]) ? $found : [$release->sourceId => Schedule::fromArray($own)] + $found;
        $nearest = array_shift($found);

        return $nearest->together(...array_values($found));
    }
}
