<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\ORM\EntityManagerInterface;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\MakeDesign;
use UpperPane\App\Layout\SaveDesign;
use UpperPane\App\Time\Schedules;

/** The schedule of a display's own, in which is booked what somebody shows there in passing; all else stays at the revision that was handed over. */
final readonly class OwnSchedules
{
    public function __construct(
        private EntityManagerInterface $entities,
        private SaveDesign $saveAny,
        private MakeDesign $makeAny,
        private Schedules $schedules,
        private Programmes $programmes,
        private HandedReleaseRepository $releases,
    ) {
    }

    /** @param list<Design> $ruling schedules that rule on a display */
    public static function of(SurveyedDisplay $display, array $ruling): ?Design
    {
        return array_values(array_filter($ruling, static fn (Design $one): bool => $one->displayId === $display->id))[0] ?? null;
    }

    /**
     * @param list<array<string, mixed>> $bookings
     * @param ?HandedRelease $current what stands there, and goes on as soon as nothing is booked
     */
    public function made(SurveyedDisplay $display, array $bookings, ?HandedRelease $current): Design
    {
        return $this->makeAny->of(
            DesignKind::Schedule,
            sprintf('Bookings of %s', $display->about()->name),
            ['timezone' => $display->timezone(), 'bookings' => $bookings] + $this->standby($current),
            $display,
            null,
        );
    }

    /** @param array<string, mixed> $document */
    public function saved(Design $design, array $document, string $note): Design
    {
        $this->saveAny->of($design->kind, $design->id, $design->revision, $document, $note)->told(static fn (Design $one): array => $one->summary());

        return $design;
    }

    /**
     * What plays there by now, and goes on as soon as nothing is booked.
     *
     * @return array{standby?: array<string, string>}
     */
    private function standby(?HandedRelease $current): array
    {
        return match ($current?->sourceKind) {
            'layout', 'filled' => ['standby' => ['layout' => $current->sourceId]],
            'playlist', 'media' => ['standby' => [$current->sourceKind => $current->sourceId]],
            default => [],
        };
    }

    /**
     * With what was changed here as it is saved now, and all else as it was handed over.
     *
     * @param list<SurveyedDisplay> $displays
     * @param array<HandedRelease> $standing what stands on them, by display
     * @param array<array{Playable, list<array-key>}> $plays by display: what plays there, and the ids of designs that were saved anew in it
     * @return array<Contents> by display
     */
    public function contents(array $displays, array $standing, array $plays): array
    {
        // What was saved in this act is asked for by what follows.
        $this->entities->flush();
        $rules = $this->schedules->all();
        $contents = [];
        foreach ($displays as $display) {
            if (!isset($plays[$display->id])) {
                continue;
            }
            [$source, $changed] = $plays[$display->id];
            $now = $this->programmes->now($source, $display, $rules);
            $then = isset($standing[$display->id]) && $changed !== [] ? $this->releases->contents($standing[$display->id]) : null;
            $kept = array_diff_key(array_intersect_key($then->parts ?? [], $now->parts), array_flip($changed));
            $contents[$display->id] = new Contents($now->source, array_replace($now->parts, $kept), $now->ruling, $now->document, $now->settings);
        }

        return $contents;
    }
}
