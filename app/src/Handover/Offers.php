<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Psr\Clock\ClockInterface;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Design;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Survey;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Handover\Planned;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Time\Schedule\ScheduleChecks;

/** What handing something over would mean, told before it is done. */
final readonly class Offers
{
    public function __construct(
        private Programmes $programmes,
        private Compiler $compiler,
        private Targets $targets,
        private HandedReleaseRepository $releases,
        private Surroundings $surroundings,
        private ClockInterface $clock,
    ) {
    }

    /**
     * What can be worked out for one never hides what would become of the others.
     *
     * @param \Closure(SurveyedDisplay): Contents $contents what would be handed over to a display
     * @param list<string> $ids of displays
     * @param array<string> $apart what tells them apart beside what they are and have, by id
     * @return list<Offer> one for all displays that are alike
     */
    public function of(\Closure $contents, array $ids, array $apart = []): array
    {
        $offers = [];
        foreach ($this->targets->alike($ids, $apart) as $alike) {
            $first = $this->targets->display($alike[0]);
            try {
                $offers[] = $this->offer($contents($first), $alike, $first);
            } catch (Refused $e) {
                $offers[] = Offer::refused($alike, $first, $this->releases->on($first), $e);
            }
        }

        return $offers;
    }

    /**
     * What putting earlier releases back would mean.
     *
     * @param array<HandedRelease> $releases by display id
     * @return list<Offer>
     */
    public function back(array $releases): array
    {
        $known = array_map($this->releases->contents(...), $releases);
        $offers = [];
        foreach (array_diff_key($releases, array_filter($known)) as $id => $release) {
            $offers[] = Offer::asItWas((string) $id, $release->display, $this->releases->on($release->display), $release);
        }
        $known = array_filter($known);

        return [...$offers, ...$this->of(
            static fn (SurveyedDisplay $display): Contents => $known[$display->id],
            array_map(strval(...), array_keys($known)),
            array_map(static fn (Contents $contents): string => $contents->key(), $known),
        )];
    }

    /** @return \Closure(SurveyedDisplay): Contents a source as it is saved by now */
    public function now(Playable $source): \Closure
    {
        $rules = $this->targets->rules();

        return fn (SurveyedDisplay $display): Contents => $this->programmes->now($source, $display, $rules);
    }

    /**
     * @param non-empty-list<string> $displays
     * @throws Refused
     */
    private function offer(Contents $contents, array $displays, SurveyedDisplay $target): Offer
    {
        $display = $target->display();
        [$from, $to] = Planned::span(1000 * $this->clock->now()->getTimestamp());
        $programme = $this->programmes->of($contents, $display);
        $release = $this->compiler->packed($contents, $programme, $display, $from, $to);
        $current = $this->releases->on($target);
        $before = $this->before($current, $display);
        $reshaped = $current?->shape !== null && $current->shape !== $target->shape;
        $there = array_flip(array_filter(array_map(static fn (Media $one): ?string => $one->id, $before?->media() ?? [])));

        return new Offer(
            $displays,
            $target,
            $current,
            $contents,
            Matching::of($programme->own(), $display->raster()),
            new Findings([
                ...self::stops($display, $target->resolved()->timezone()),
                ...$this->programmes->filledIn($contents, $display),
                ...$this->programmes->lyingAbove($contents, $display),
                ...$this->programmes->triggering($contents, $display, $programme),
                ...$this->found($programme, $display, $from),
            ]),
            [
                ...($reshaped ? ['The display was surveyed anew: its raster, panels or outputs are others.'] : []),
                ...$programme->changesFrom($before),
            ],
            array_sum(array_column(array_diff_key($this->compiler->files($programme), $there), 'bytes')),
            $release->planned(),
            $current !== null && !$reshaped && ($current->sha256 === $release->hash() || $this->releases->contents($current)?->key() === $contents->key()),
            $this->instead($contents, $target, $current),
        );
    }

    /**
     * The schedule that rules there, where something else is meant.
     *
     * @return ?array{id: string, name: string, handed_over: bool}
     */
    private function instead(Contents $contents, SurveyedDisplay $target, ?HandedRelease $current): ?array
    {
        $nearest = $contents->source->kind === 'schedule' ? null : ($this->targets->rules()->on($target->id, ...$target->place->outwards())[0] ?? null);

        return $nearest instanceof Design ? ['id' => $nearest->id, 'name' => $nearest->name, 'handed_over' => $current?->sourceKind === 'schedule'] : null;
    }

    /** What plays there by a release; null where there is none, or where what it refers to is gone. */
    private function before(?HandedRelease $release, Display $display): ?Programme
    {
        $contents = $release === null ? null : $this->releases->contents($release);
        try {
            return $contents === null ? null : $this->programmes->of($contents, $display);
        } catch (Refused | Problem) {
            return null;
        }
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

        return [...$findings, ...$programme->findings(), ...($schedule === null ? [] : ScheduleChecks::run($schedule, $programme->clock(), $fromMs, $fromMs + Planned::AHEAD_MS)->all)];
    }

    /** @return list<Finding> what stops the display itself */
    private static function stops(Display $display, ?string $timezone): array
    {
        return array_values(array_filter(Survey::check($display, $timezone)->all, static fn (Finding $finding): bool => $finding->level === Level::Stop));
    }
}
