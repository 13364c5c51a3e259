<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\App\Display\Displays;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\Places;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\Pictures;
use UpperPane\App\Time\Schedules;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Setting\Resolved;
use UpperPane\Core\Setting\Settings;

/** What another setting of a place would make of the displays in it, before it is stated. */
final readonly class SettingsReach
{
    /** A picture of before and after is of so long. */
    private const SPAN_MS = 600_000;

    public function __construct(
        private Places $places,
        private Displays $displays,
        private Programmes $programmes,
        private HandedReleaseRepository $releases,
        private Schedules $schedules,
        private Pictures $pictures,
    ) {
    }

    /**
     * @param Place|SurveyedDisplay $at where it would be stated
     * @param string $name of the setting
     * @param Node $value null for what comes from above
     * @return list<array{id: string, name: string, before: mixed, after: mixed, shows: ?string, other: bool}> displays on which something else would hold; what is
     *         handed over there, and whether that would be another one
     * @throws Refused
     */
    public function of(Place|SurveyedDisplay $at, string $name, Node $value): array
    {
        [$other, $now, $then] = [[], [], []];
        foreach ($at instanceof Place ? $this->displays->hangingIn($this->places->in($at)) : [$at] as $display) {
            $after = $this->resolved($display, $at, $name, $value, $then);
            $before = $this->resolved($display, null, $name, $value, $now);
            if ($before->value($name) !== $after->value($name)) {
                $other[] = [$display, $before, $after];
            }
        }
        [$reached, $known, $rules, $releases] = [[], [], $this->schedules->all(), $this->releases->onEach(array_column($other, 0))];
        foreach ($other as [$display, $before, $after]) {
            $release = $releases[$display->id] ?? null;
            $settled = self::settled($display, $after);
            // What plays the same by the same settings is looked at once, on however many displays.
            $ruling = array_map(static fn (Design $design): string => $design->id, $rules->on($display->id, ...$display->place->outwards()));
            $key = serialize([$release?->sourceKind, $release?->sourceId, $ruling, $display->settled, $settled]);
            $reached[] = [
                'id' => $display->id,
                'name' => $display->about()->name,
                'before' => $before->value($name),
                'after' => $after->value($name),
                'shows' => $release?->name,
                'other' => $known[$key] ??= $release !== null && $this->contents($display, $display->settled)?->key() !== $this->contents($display, $settled)?->key(),
            ];
        }

        return $reached;
    }

    /**
     * @return array{before: ?array<string, mixed>, after: ?array<string, mixed>} pictures of what is handed over to a display, as it is saved by now
     * @throws Refused
     */
    public function pictures(Place|SurveyedDisplay $at, string $name, Node $value, SurveyedDisplay $display): array
    {
        return [
            'before' => $this->picture($display, $display->settled),
            'after' => $this->picture($display, self::settled($display, $this->resolved($display, $at, $name, $value))),
        ];
    }

    /**
     * @param array<string, mixed> $settled
     * @return ?array<string, mixed>
     */
    private function picture(SurveyedDisplay $display, array $settled): ?array
    {
        try {
            $contents = $this->contents($display, $settled);

            return $contents === null ? null : $this->pictures->ofProgramme($this->programmes->of($contents, $display->display()), self::SPAN_MS);
        } catch (Refused | Problem) {
            return null;
        }
    }

    /** @param array<string, mixed> $settled */
    private function contents(SurveyedDisplay $display, array $settled): ?Contents
    {
        $source = $this->programmes->standing($display);
        try {
            return $source === null ? null : $this->programmes->now($source, $display, settled: $settled);
        } catch (Problem) {
            return null;
        }
    }

    /**
     * What would hold at a place or on a display.
     *
     * @param Place|SurveyedDisplay|null $at where it would be stated; null for what holds as it is
     * @param array<Resolved> $known of places, by id: what holds there is worked out once
     * @throws Refused
     */
    private function resolved(Place|SurveyedDisplay $one, Place|SurveyedDisplay|null $at, string $name, Node $value, array &$known = []): Resolved
    {
        if ($one instanceof Place && isset($known[$one->id])) {
            return $known[$one->id];
        }
        $outer = $one instanceof Place ? $one->parent : $one->place;
        $above = $outer === null ? Resolved::nothing() : $this->resolved($outer, $at, $name, $value, $known);
        try {
            $stated = $one === $at ? Settings::stating($one->settings, $name, $value->value) : $one->settings;
            $resolved = $above->below($one->id, Settings::fromNode(Node::root($stated), $one instanceof SurveyedDisplay));
        } catch (Refused $e) {
            throw $e->in('', $value->path);
        }
        if ($one instanceof Place) {
            $known[$one->id] = $resolved;
        }

        return $resolved;
    }

    /** @return array<string, mixed> */
    private static function settled(SurveyedDisplay $display, Resolved $resolved): array
    {
        return [Settings::TIMEZONE => $resolved->timezone() ?? $display->asSurveyed()->timezone] + $resolved->settled();
    }
}
