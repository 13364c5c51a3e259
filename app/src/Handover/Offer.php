<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Handover\Release;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Units\Instant;

/** What would be handed over to one display, with all that is to be known beforehand. */
final readonly class Offer
{
    /**
     * @param list<string> $changes in words
     * @param int $newBytes of media that the display's current release does not have
     */
    public function __construct(
        public SurveyedDisplay $display,
        public Release $release,
        public Matching $matching,
        public Findings $findings,
        public array $changes,
        public int $newBytes,
    ) {
    }

    /** @return array<string, mixed> of a display for which nothing can be worked out, and why */
    public static function refused(SurveyedDisplay $display, Refused $refused): array
    {
        return [
            'display' => $display->id,
            'match' => null,
            'changes' => [],
            'unchanged' => false,
            'current' => $display->current?->toArray(),
            'new_bytes' => 0,
            'planned' => null,
        ] + (new Findings([Finding::refused($refused)]))->toArray();
    }

    public function isUnchanged(): bool
    {
        return $this->display->current?->sha256 === $this->release->hash();
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'display' => $this->display->id,
            'match' => $this->matching->toArray(),
            'changes' => $this->isUnchanged() ? [] : $this->changes,
            'unchanged' => $this->isUnchanged(),
            'current' => $this->display->current?->toArray(),
            'new_bytes' => $this->newBytes,
            'planned' => ($planned = $this->release->planned()) === null ? null : ['until' => (string) Instant::ofMs($planned->untilMs), 'then' => $planned->then],
        ] + $this->findings->toArray();
    }
}
