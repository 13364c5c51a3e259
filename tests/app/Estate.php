<?php

declare(strict_types=1);

namespace UpperPane\Tests\App;

/** Puts what the answer about the estate tells once to each display, as `web/src/Estate/estate.ts` does. */
final class Estate
{
    /**
     * @param array<string, mixed> $answer
     * @return array<string, mixed>
     */
    public static function together(array $answer): array
    {
        $ways = array_column($answer['places'], 'way', 'id');
        $answer['displays'] = array_map(static fn (array $row): array => [
            'release' => $row['release'] === null ? null : ['number' => $row['number']] + $answer['releases'][$row['release']],
            'saved_not_handed_over' => $row['older'],
            'standing' => $answer['standings'][$row['standing']],
            'due' => $row['due'] === null ? null : $answer['dues'][$row['due']],
            'way' => $ways[$row['place']],
            'players' => array_map(static fn (array $player): array => ['standing' => $answer['standings'][$player['standing']]] + $player, $row['players']),
        ] + $row + $answer['kinds'][$row['kind']], $answer['displays']);

        return $answer;
    }
}
