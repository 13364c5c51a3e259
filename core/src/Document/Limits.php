<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** The bounds of Budget in words: docs/limits.md is made of them. */
final readonly class Limits
{
    /** @return list<array{what: string, most: int, where: string}> */
    public static function all(): array
    {
        return [
            ['what' => 'layouts within layouts, the outermost included', 'most' => Budget::LEVELS, 'where' => 'the ref that goes deeper'],
            ['what' => 'layouts and playlists that a layout, and all that lies in it, mentions; each counts wherever it is named', 'most' => Budget::MENTIONS, 'where' => 'the mention'],
            ['what' => 'elements of a layout', 'most' => Budget::ELEMENTS, 'where' => '`/elements`'],
            ['what' => 'rows of data that an element tells, at the instant at which it is looked at', 'most' => Budget::ROWS, 'where' => 'its `rows`'],
            ['what' => 'rows of data, of any time, that an item plays one after the other', 'most' => Budget::ROWS, 'where' => 'its `each`'],
            ['what' => 'slots of a loop, weights and extras counted, until all begins again', 'most' => Budget::SLOTS, 'where' => 'the items or the interleave'],
            ['what' => 'slots of the loop of a follower and its leader, until both begin together again', 'most' => Budget::SLOTS, 'where' => '`follows`'],
            ['what' => 'occurrences of the bookings of a schedule in the span that is asked for', 'most' => Budget::SEGMENTS, 'where' => 'the rule, or `/bookings`'],
            ['what' => 'instants of a recurrence in the span that is asked for', 'most' => Budget::SEGMENTS, 'where' => '`/to`'],
            ['what' => 'times in one round of a rule of which BYSETPOS chooses', 'most' => Budget::SEGMENTS, 'where' => 'the rule'],
            ['what' => 'segments of all zones of a layout in the span that is asked for', 'most' => Budget::SEGMENTS, 'where' => '`/to`'],
            ['what' => 'pieces that play one after the other in the span that is asked for', 'most' => Budget::SEGMENTS, 'where' => '`/to`'],
            ['what' => 'turns of all zones in a run sheet', 'most' => Budget::SEGMENTS, 'where' => '`/to`'],
            ['what' => 'changes of a display and its zones told in words', 'most' => Budget::STRETCHES, 'where' => '`/to`'],
            [
                'what' => 'elements checked again while cures are tried, ten for one that is no zone; the findings behind them are offered a cure once others are cured',
                'most' => Budget::TRIALS,
                'where' => 'not refused',
            ],
            ['what' => 'findings of one code in one answer; then one that says how many more', 'most' => Budget::FINDINGS, 'where' => 'not refused'],
        ];
    }
}
