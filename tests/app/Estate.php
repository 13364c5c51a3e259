<?php

declare(strict_types=1);

namespace UpperPane\Tests\App;

/** Puts what the answer about the estate tells once to each display, as `web/src/Estate/estate.ts` does. */
final class Estate
{
    private const SILENT = ['part' => null, 'build' => null, 'called_at' => null, 'plays_sha256' => null, 'plays_since' => null, 'trouble' => null, 'plays_release' => null];

    /**
     * @param array<string, mixed> $answer
     * @return array<string, mixed>
     */
    public static function together(array $answer): array
    {
        $ways = array_column($answer['places'], 'way', 'id');
        $answer['displays'] = array_map(static fn (array $row): array => [
            'release' => !isset($row['release']) ? null : ['number' => $row['number']] + $answer['releases'][$row['release']],
            'saved_not_handed_over' => $row['older'] ?? false,
            'standing' => $answer['standings'][$row['standing']],
            'due' => !isset($row['due']) ? null : $answer['dues'][$row['due']],
            'way' => $ways[$row['place']],
            'players' => array_map(static fn (array $player): array => ['standing' => $answer['standings'][$player['standing']]] + $player + self::SILENT, $row['players']),
            'planned' => $row['planned'] ?? null,
        ] + $row + $answer['kinds'][$row['kind']], $answer['displays']);

        return $answer;
    }
}
