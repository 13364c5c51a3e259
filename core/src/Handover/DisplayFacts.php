<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Playback\Call;
use UpperPane\Core\Playback\DisplayStatus;

/** What is known of a display, its release and its players at an instant, as far as something may be wrong with it. */
final readonly class DisplayFacts
{
    /**
     * @param list<array{string, Call, DisplayStatus}> $players that are bound: what each is called, what it said last, and how it stands
     * @param ?array{number: int, name: string, source: string} $release that was handed over last; the source as `kind:id`
     * @param bool $isOlder whether what is saved by now says something else
     * @param ?Finding $planned what is found in the plan of its release
     * @param array{stops: int, warnings: int, hints: int} $survey how much is found in its survey
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $timezone,
        public array $players,
        public ?array $release,
        public bool $isOlder,
        public ?Finding $planned,
        public array $survey,
    ) {
    }
}
