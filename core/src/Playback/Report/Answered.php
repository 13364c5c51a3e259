<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Report;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Units\Instant;

/** What a map of triggers shows on a player: the state that it came to last, and why. */
final readonly class Answered
{
    /** Maps that run on one display. */
    public const MOST = 20;

    public function __construct(public string $map, public string $state, public string $why, public Instant $since)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields */
        static $fields;

        return $fields ??= Fields::of([
            'map' => Field::id()->required(),
            'state' => Field::id()->required(),
            'why' => Field::id()->required()->saying('id of the signal; lapse where the state before ended, start for the first'),
            'since' => Field::text(1, 40)->required()->saying('instant, UTC'),
        ])->named('Answered');
    }

    /** @throws DocumentRefused */
    public static function read(Node $node): self
    {
        $node->object(...self::fields()->names());
        $since = $node->field('since');

        return new self($node->field('map')->id(), $node->field('state')->id(), $node->field('why')->id(), Instant::parse($since->text(1, 40), $since->path));
    }

    /** @return array{map: string, state: string, why: string, since: string} */
    public function toArray(): array
    {
        return ['map' => $this->map, 'state' => $this->state, 'why' => $this->why, 'since' => (string) $this->since];
    }
}
