<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Psr\Clock\ClockInterface;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignForms;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\DesignLibrary;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Layout\Feeding;
use UpperPane\App\Layout\HouseStyles;
use UpperPane\App\Media\MediaAssets;
use UpperPane\App\Time\Schedules;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Handover\Documents;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Media\Holes;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Playback\Overlaid;
use UpperPane\Core\Playback\OverlayChecks;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\Reactions;
use UpperPane\Core\Setting\Settings;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Ruling;
use UpperPane\Core\Trigger\Contents as Answers;
use UpperPane\Core\Trigger\TriggerChecks;
use UpperPane\Core\Trigger\TriggerMap;

/** What plays on a display: as it is saved by now, or as it was handed over. */
final readonly class Programmes
{
    public function __construct(
        private Designs $designs,
        private Designs $anyDesigns,
        private MediaAssets $media,
        private DesignLibrary $library,
        private DesignForms $forms,
        private Schedules $schedules,
        private HandedReleaseRepository $releases,
        private Surroundings $surroundings,
        private Feeding $feeding,
        private HouseStyles $styles,
        private Holes $holes,
        private ClockInterface $clock,
    ) {
    }

    /** @param Node $node `{"kind": "layout"|"filled"|"playlist"|"media"|"schedule", "id", "revision"?}`; a revision named must be the newest */
    public function source(Node $node): Playable
    {
        $node->object('kind', 'id', 'revision');
        $id = $node->field('id')->id();
        $kind = $node->field('kind')->oneOf('layout', 'filled', 'playlist', 'media', 'schedule');
        if ($kind === 'media') {
            $asset = $this->media->one($id);

            return $asset->media() === null
                ? throw new Problem(409, 'media.unready', sprintf('"%s" is not ready to be played.', $asset->name))
                : new Playable($kind, $id, null, $asset->name);
        }
        $design = $this->designs->of(DesignKind::from($kind), $id);
        $revision = $node->optional('revision')?->int(1) ?? $design->revision;
        if ($revision !== $design->revision) {
            throw new Problem(409, 'revision.stale', sprintf('"%s" is at revision %d by now, you looked at %d. Look at what changed, then hand over.', $design->name, $design->revision, $revision));
        }

        return Playable::kept($kind, $id, $revision, $design->name);
    }

    /**
     * What stands on a display, as it is saved by now, else the schedule that rules there; null where there is neither.
     *
     * @param bool $scheduled the schedule first, also where something else stands
     */
    public function standing(SurveyedDisplay $display, bool $scheduled = false): ?Playable
    {
        $ruling = $this->schedules->ruling($display);
        $current = $scheduled && $ruling !== [] ? null : $this->releases->on($display);
        $kind = $current === null ? 'schedule' : $current->sourceKind;
        $id = $current === null ? ($ruling[0] ?? null)?->id : $current->sourceId;
        try {
            return $id === null ? null : $this->source(Node::root(['kind' => $kind, 'id' => $id]));
        } catch (Problem) {
            return null;
        }
    }

    /**
     * A source with every design in it as it is saved by now.
     *
     * @param ?Ruling<Design> $rules every schedule, where that is known already
     * @param ?array<string, mixed> $settled what holds there; null for what does by now
     */
    public function now(Playable $source, SurveyedDisplay $target, ?Ruling $rules = null, ?array $settled = null): Contents
    {
        $settled ??= $target->settled;
        if ($source->kind !== 'schedule') {
            [$parts, $settings] = $this->parts([...($source->kind === 'media' ? [] : [$source->id]), ...self::overlaysOf($settled), ...self::triggersOf($settled)], $settled);

            return new Contents($source, $parts, settings: $settings);
        }
        $ruling = array_map(static fn (Design $design): string => $design->id, ($rules ?? $this->schedules->all())->on($target->id, ...$target->place->outwards()));
        if (!in_array($source->id, $ruling, true)) {
            throw new Problem(409, 'schedule.elsewhere', sprintf('"%s" does not rule on "%s". Book on that display, or on a place that it hangs in.', $source->name, $target->display()->name));
        }
        $standby = self::standby($settled);
        $above = [...self::overlaysOf($settled), ...self::triggersOf($settled)];
        [$parts, $settings] = $this->parts([...$ruling, ...($standby === null || $standby->kind === 'media' ? [] : [$standby->id]), ...$above], $settled);

        return new Contents($source, $parts, $ruling, settings: $settings + ($standby === null ? [] : [Settings::STANDBY => $standby->key()]));
    }

    /**
     * @param ?Feeds $feeds what sources tell; null for as screens go on telling it
     * @throws Refused where it cannot be worked out
     * @throws Problem where something in it is not there any more
     */
    public function of(Contents $contents, Display $display, ?Feeds $feeds = null): Programme
    {
        $composed = $this->composed($contents, $display, $feeds);

        return $composed[1] === [] ? $composed[0] : $this->overlaid(...$composed)->programme;
    }

    /**
     * What plays, the overlays that lie above it, and with what both are read.
     *
     * @param ?string $without the id of an overlay that is left out where it holds there
     * @return array{Programme, list<array<string, mixed>>, Display, DesignLibrary}
     * @throws Refused
     * @throws Problem
     */
    private function composed(Contents $contents, Display $display, ?Feeds $feeds, ?string $without = null): array
    {
        $now = (int) $this->clock->now()->format('Uv');
        $timezone = $contents->settings[Settings::TIMEZONE] ?? null;
        $display = is_string($timezone) ? $display->in($timezone) : $display;
        $surroundings = $this->styles->seen($this->surroundings->on($display)->at($now)->fed($feeds ?? $this->feeding->goingOn($now)), $contents->settings, $contents->parts);
        $library = $this->library->at($contents->parts)->seen($surroundings);
        $lying = array_filter(self::overlaysOf($contents->settings), static fn (string $one): bool => $one !== $without);
        $held = fn (string $one): array => $library->document($one, DesignKind::Overlay) ?? throw Problem::notFound('An overlay that lies above what plays here');
        $overlays = array_map($held, array_values($lying));
        ['kind' => $kind, 'id' => $id] = $contents->source->toArray();
        if ($kind === 'media') {
            $media = $this->media->find($id)?->media() ?? ($contents->document === null ? null : Media::fromNode(Node::root($contents->document)));

            return $media === null
                ? throw Problem::notFound('This media')
                : [$this->answering(Programme::endless(Composer::over()->media($media, $display->raster(), $id), $display->timezone), $contents, $library), $overlays, $display, $library];
        }
        $design = DesignKind::from($kind);
        $form = $this->forms->of($design);
        $ids = $form::rules() ? $contents->ruling ?? $this->ruledThen($contents) : [$id];

        $documents = array_map(fn (string $one): array => $this->document($library, $contents, $one, $design), $ids);
        if ($documents === []) {
            throw Problem::notFound("This $kind");
        }
        $standby = self::standby($contents->settings);
        if ($standby !== null && $form::rules() && array_filter($documents, static fn (array $one): bool => isset($one['standby'])) === []) {
            $documents[0]['standby'] = $standby->toArray();
        }

        return [$this->answering($form->plays($library, $display, $documents), $contents, $library), $overlays, $display, $library];
    }

    /**
     * With what it shows when something happens before it.
     *
     * @throws Refused
     * @throws Problem
     */
    private function answering(Programme $programme, Contents $contents, DesignLibrary $library): Programme
    {
        $maps = $this->maps($contents, $library, $programme->own());

        return $maps === [] ? $programme : $programme->reacting(Reactions::live($maps, $programme->base));
    }

    /**
     * The maps of triggers that run there, the last one on top.
     *
     * @return list<Answers>
     * @throws Refused
     * @throws Problem where one is not there any more
     */
    private function maps(Contents $contents, DesignLibrary $library, Size $canvas): array
    {
        return array_map(static function (string $id) use ($library, $canvas): Answers {
            $document = $library->document($id, DesignKind::Trigger) ?? throw Problem::notFound('A map of triggers that runs here');

            return new Answers(TriggerMap::fromArray($document), $library->composer($document), $canvas);
        }, self::triggersOf($contents->settings));
    }

    /**
     * The maps of triggers that run on a display, as they were handed over, with what their states show by now.
     *
     * @return list<Answers>
     * @throws Refused
     * @throws Problem where one is not there any more
     */
    public function answersOn(Contents $contents, SurveyedDisplay $target): array
    {
        return $this->maps($contents, $this->library->at($contents->parts)->seen($this->surroundings($target)), $target->display()->raster());
    }

    /** What stands on a display, at the revisions that were handed over, under the overlays that hold there by now. */
    public function under(Contents $standing, SurveyedDisplay $target): Contents
    {
        $held = self::overlaysOf($target->settled);
        [$parts, $settings] = $this->parts($held, $target->settled);
        $before = array_diff(self::overlaysOf($standing->settings), $held);

        return new Contents(
            $standing->source,
            array_diff_key($standing->parts, array_flip($before), array_flip($held)) + array_intersect_key($parts, array_flip($held)) + $parts,
            $standing->ruling,
            $standing->document,
            [Settings::OVERLAYS => $settings[Settings::OVERLAYS] ?? ''] + $standing->settings + array_diff_key($settings, [Settings::TRIGGERS => 1]),
        );
    }

    /** All that decides how something looks on a display at this moment. */
    public function surroundings(SurveyedDisplay $target): Surroundings
    {
        $now = (int) $this->clock->now()->format('Uv');

        return $this->styles->seen($this->surroundings->on($target->display())->at($now)->fed($this->feeding->goingOn($now)), $target->settled);
    }

    /**
     * Overlays of one id, one at a time, above what stands on a display and among what lies above that, which is composed once.
     *
     * @param ?Contents $contents what stands there; null where that is no matter
     * @return \Closure(array<string, mixed>): Overlaid takes its document; throws Refused and Problem as this does
     * @throws Refused where it cannot be worked out
     * @throws Problem where something in it is not there any more
     */
    public function above(string $id, SurveyedDisplay $target, ?Contents $contents): \Closure
    {
        $display = $target->display();
        $nothing = ['format' => Layout::FORMAT, 'id' => 'nothing', 'name' => 'Nothing', 'canvas' => $display->raster()->toArray(), 'elements' => []];
        [$programme, $others, $display, $library] = $contents !== null ? $this->composed($contents, $display, null, $id) : [
            Programme::endless(Composer::over()->layout(Layout::fromArray($nothing)), $display->timezone),
            [],
            $display,
            $this->library->seen($this->surroundings($target)),
        ];

        return function (array $document) use ($programme, $others, $display, $library): Overlaid {
            /** @var array<string, mixed> $document */
            return $this->overlaid($programme, [...$others, $document], $display, $library);
        };
    }

    /**
     * With what lies above it there.
     *
     * @param list<array<string, mixed>> $documents of overlays
     *
     * @throws Refused where an overlay cannot be worked out
     * @throws Problem where one is not there any more
     */
    private function overlaid(Programme $programme, array $documents, Display $display, DesignLibrary $library): Overlaid
    {
        $overlays = Overlays::of(...array_map(static fn (array $one): Overlay => Overlay::fromNode(Node::root($one)), $documents));
        $overlaid = Overlaid::of($programme, $overlays, $library->composer(...$documents), $display->raster(), $this->holes);
        $overlaid->check();

        return $overlaid;
    }

    /**
     * @param array<string, mixed> $settled
     * @return list<string> ids of the overlays that hold there
     */
    private static function overlaysOf(array $settled): array
    {
        return self::listed($settled[Settings::OVERLAYS] ?? null);
    }

    /**
     * @param array<string, mixed> $settled
     * @return list<string> ids of the maps of triggers that run there
     */
    private static function triggersOf(array $settled): array
    {
        return self::listed($settled[Settings::TRIGGERS] ?? null);
    }

    /** @return list<string> */
    private static function listed(mixed $ids): array
    {
        return is_string($ids) && $ids !== '' ? explode(',', $ids) : [];
    }

    /**
     * What is wrong with what was filled in that plays there.
     *
     * @return list<Finding>
     * @throws Refused
     */
    public function filledIn(Contents $contents, Display $display): array
    {
        $now = (int) $this->clock->now()->format('Uv');
        $surroundings = $this->styles->seen($this->surroundings->on($display)->at($now)->fed($this->feeding->goingOn($now)), $contents->settings, $contents->parts);
        $library = $this->library->at($contents->parts)->seen($surroundings);
        $found = [];
        foreach (array_keys($contents->parts) as $id) {
            $document = $library->document((string) $id, DesignKind::Filled);
            if ($document === null) {
                continue;
            }
            $filling = $library->composer($document)->filling(Filled::fromArray($document));
            foreach ($filling->findings($surroundings)->all as $finding) {
                if ($contents->source->id === (string) $id) {
                    $found[] = $finding;
                } elseif ($finding->level === Level::Stop) {
                    // In a zone it is as large as that, of which nothing is known here; what is missing is missing everywhere.
                    $found[] = $finding->within($filling->name());
                }
            }
        }

        return $found;
    }

    /**
     * What is wrong with the overlays that lie above it there, as far as that is no matter of what they cover.
     *
     * @return list<Finding>
     * @throws Refused
     */
    public function lyingAbove(Contents $contents, Display $display): array
    {
        if (self::overlaysOf($contents->settings) === []) {
            return [];
        }
        $overlaid = $this->overlaid(...$this->composed($contents, $display, null));

        return OverlayChecks::inTimes($overlaid, $overlaid->programme->clock(), (int) $this->clock->now()->format('Uv'))->all;
    }

    /**
     * What is wrong with the maps of triggers that run there.
     *
     * @return list<Finding>
     * @throws Refused
     */
    public function triggering(Contents $contents, Display $display, Programme $programme): array
    {
        $surroundings = $this->styles->seen($this->surroundings->on($display)->at((int) $this->clock->now()->format('Uv')), $contents->settings, $contents->parts);
        $found = [];
        foreach ($this->maps($contents, $this->library->at($contents->parts)->seen($surroundings), $programme->own()) as $answers) {
            $has = static fn (string $zone): bool => $programme->base->zoneRect($zone) !== null;
            foreach ([...TriggerChecks::run($answers->map, $display, $answers, $has)->all, ...TriggerChecks::unready($answers->map)] as $finding) {
                $found[] = $finding->within($answers->map->name);
            }
        }

        return $found;
    }

    /**
     * A map of triggers as it is about to be saved, above what would play on a display by now; on none, above nothing.
     *
     * @param array<string, mixed> $document
     * @return array{Programme, Answers, bool} what plays, without any map; what the states play; and whether anything is known that plays
     * @throws Refused where it cannot be worked out
     */
    public function trying(array $document, ?SurveyedDisplay $target): array
    {
        $source = $target === null ? null : $this->standing($target);
        $raster = $target?->display()->raster() ?? Size::px(1920, 1080);
        $programme = null;
        if ($target !== null && $source !== null) {
            try {
                $programme = $this->composed($this->now($source, $target, settled: [Settings::TRIGGERS => ''] + $target->settled), $target->display(), null)[0];
            } catch (Problem) {
                // Something in it is not there any more: the map can be looked at all the same.
            }
        }
        $library = $target === null ? $this->library : $this->library->seen($this->surroundings($target));
        $nothing = ['format' => Layout::FORMAT, 'id' => 'nothing', 'name' => 'Nothing', 'canvas' => $raster->toArray(), 'elements' => []];
        $base = $programme ?? Programme::endless($library->composer()->layout(Layout::fromArray($nothing)), $target?->display()->timezone ?? 'UTC');

        return [$base, new Answers(TriggerMap::fromArray($document), $library->composer($document), $base->own()), $programme !== null];
    }

    /** @return array<string, mixed> */
    private function document(DesignLibrary $library, Contents $contents, string $id, DesignKind $kind): array
    {
        /** @var ?array<string, mixed> $kept */
        $kept = $id === $contents->source->id ? $contents->document : null;

        return $kept ?? $library->document($id, $kind) ?? throw Problem::notFound("This $kind->value");
    }

    /**
     * The schedules by which a release was planned before their order was recorded: its own source first.
     *
     * @return list<string>
     */
    private function ruledThen(Contents $contents): array
    {
        $schedules = array_map(static fn (Design $design): string => $design->id, $this->anyDesigns->all(DesignKind::Schedule));
        $then = array_intersect(array_map(strval(...), array_keys($contents->parts)), $schedules);

        return array_values(array_unique([$contents->source->id, ...$then]));
    }

    /**
     * What plays by a place's settings where nothing else does.
     *
     * @param array<string, mixed> $settled
     */
    private static function standby(array $settled): ?Played
    {
        [$kind, $id] = [...explode(':', is_string($settled[Settings::STANDBY] ?? null) ? $settled[Settings::STANDBY] : '', 2), ''];

        return $id === '' || !in_array($kind, ['layout', 'playlist', 'media'], true) ? null : Played::of($kind, $id);
    }

    /**
     * @param list<string> $ids of designs
     * @param array<string, mixed> $settled what holds where they play
     * @return array{array<int>, array<string, mixed>} newest revision of these and of every design in them, by id, and of the house style where they name
     *         anything of it; and of what holds there that which decides how they look
     */
    private function parts(array $ids, array $settled): array
    {
        [$parts, $wanted, $seen] = [[], $ids, $ids];
        [$style, $languages, $vars] = [false, false, []];
        while ($wanted !== []) {
            $next = [];
            foreach ($this->anyDesigns->those($wanted) as $design) {
                // What sources tell goes on by itself, whatever was handed over.
                if ($design->kind === DesignKind::Source) {
                    continue;
                }
                $parts[$design->id] = $design->revision;
                array_push($next, ...$design->named());
                $documents = [$design->document];
                $pinned = Filled::pinned($design->document);
                if ($pinned !== null) {
                    // It says itself into which revision of its template it was filled: that is no part which goes on.
                    $template = $this->anyDesigns->numbered(...$pinned)->document ?? [];
                    $documents[] = $template;
                    $next = [...array_diff($next, [$pinned[0]]), ...Documents::named($template)['designs']];
                }
                foreach ($documents as $document) {
                    $depends = Documents::dependsOn($document);
                    [$style, $languages, $vars] = [$style || $depends['style'], $languages || $depends['languages'], [...$vars, ...$depends['vars']]];
                }
            }
            $wanted = array_values(array_diff(array_unique($next), array_map(strval(...), array_keys($parts)), $seen));
            array_push($seen, ...$wanted);
        }
        $id = is_string($settled[Settings::STYLE] ?? null) ? $settled[Settings::STYLE] : '';
        foreach ($style ? $this->anyDesigns->those(array_map(strval(...), array_keys($this->styles->chain($id)))) : [] as $design) {
            $parts[$design->id] = $design->revision;
        }
        ksort($parts, SORT_STRING);
        $stated = is_array($settled[Settings::VARS] ?? null) ? $settled[Settings::VARS] : [];
        $vars = array_intersect_key($stated, array_flip($vars));

        $always = [Settings::TIMEZONE => 1, Settings::OVERLAYS => 1, Settings::TRIGGERS => 1];
        $needed = $always + ($style ? [Settings::STYLE => 1] : []) + ($languages ? [Settings::LANGUAGES => 1] : []);

        return [$parts, array_intersect_key($settled, $needed) + ($vars === [] ? [] : [Settings::VARS => $vars])];
    }
}
