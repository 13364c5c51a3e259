<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Handover\Planned;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Units\Instant;

/** What would be handed over to displays that are alike, with all that is to be known beforehand. */
final readonly class Offer
{
    /**
     * @param non-empty-list<string> $displays ids
     * @param SurveyedDisplay $first of them
     * @param ?HandedRelease $current what stands on them
     * @param ?Contents $contents null where nothing can be worked out
     * @param list<string> $changes in words
     * @param int $newBytes of media that the displays' current release does not have
     * @param ?int $asItWas id of an earlier release whose bytes come back as they are
     * @param ?array{id: string, name: string, handed_over: bool} $instead schedule that rules there, and in whose place it would play
     */
    public function __construct(
        public array $displays,
        public SurveyedDisplay $first,
        public ?HandedRelease $current,
        public ?Contents $contents,
        public ?Matching $matching,
        public Findings $findings,
        public array $changes,
        public int $newBytes,
        public ?Planned $planned,
        public bool $isUnchanged,
        public ?array $instead,
        public ?int $asItWas = null,
    ) {
    }

    /**
     * Of displays for which nothing can be worked out, and why.
     *
     * @param non-empty-list<string> $displays ids
     */
    public static function refused(array $displays, SurveyedDisplay $first, ?HandedRelease $current, Refused $refused): self
    {
        return new self($displays, $first, $current, null, null, new Findings([Finding::refused($refused)]), [], 0, null, false, null);
    }

    /** An earlier release of which it was not recorded what it was made from: its bytes are there still. */
    public static function asItWas(string $display, SurveyedDisplay $first, ?HandedRelease $current, HandedRelease $release): self
    {
        return new self(
            [$display],
            $first,
            $current,
            null,
            null,
            new Findings([]),
            [sprintf('"%s" comes back as the file that it was: what it was made from was not recorded then, so what changes cannot be told.', $release->name)],
            0,
            null,
            $current?->sha256 === $release->sha256,
            null,
            $release->id,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'displays' => $this->displays,
            'match' => $this->matching?->toArray(),
            'changes' => $this->isUnchanged ? [] : $this->changes,
            'unchanged' => $this->isUnchanged,
            'current' => $this->current?->toArray(),
            'new_bytes' => $this->newBytes,
            'planned' => $this->planned === null ? null : ['until' => (string) Instant::ofMs($this->planned->untilMs), 'then' => $this->planned->then],
            'instead_of' => $this->instead,
        ] + $this->findings->toArray();
    }
}
