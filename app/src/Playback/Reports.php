<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use UpperPane\App\Jobs\Errand;

/**
 * What players say of themselves: appended as it comes, without a lock and without looking at a display, and put together by the keeper.
 *
 * So ten thousand players that speak at once wait for nobody, and nobody waits for them.
 */
final readonly class Reports implements Errand
{
    /** So many are put together in one transaction. */
    private const BATCH = 1000;

    public function __construct(private Connection $connection, private ClockInterface $clock)
    {
    }

    /**
     * @param string $secret of the player's address
     * @param array{release: ?string, since: ?string, trouble: ?string, output: ?int, build: ?string, every_s: ?int} $said
     * @return bool whether there is such a player
     */
    public function hear(string $secret, array $said): bool
    {
        $player = $this->connection->fetchOne('SELECT id FROM player WHERE secret = ? AND revoked_at IS NULL', [$secret]);
        if ($player === false) {
            return false;
        }
        $this->connection->insert('player_report', ['player_id' => $player, 'said' => json_encode(['at' => $this->clock->now()->getTimestamp()] + $said, JSON_THROW_ON_ERROR)]);

        return true;
    }

    /** Puts together what was said, and tells how many reports that were. */
    public function doDue(): int
    {
        return $this->connection->transactional(function (Connection $connection): int {
            $rows = $connection->fetchAllAssociative('SELECT id, player_id, said FROM player_report ORDER BY id LIMIT ' . self::BATCH . ' FOR UPDATE SKIP LOCKED');
            if ($rows === []) {
                return 0;
            }
            $said = [];
            foreach ($rows as ['player_id' => $player, 'said' => $text]) {
                assert(is_string($player) && is_string($text));
                /** @var array{at: int, release: ?string, since: ?string, trouble: ?string, output: ?int, build: ?string, every_s: ?int} $one */
                $one = json_decode($text, true, flags: JSON_THROW_ON_ERROR);
                $said[$player][] = $one;
            }
            $players = $connection->fetchAllAssociative(
                "SELECT p.id, p.part, p.calls, p.bound_at, p.build, JSON_EXTRACT(s.summary, '$.feeds') AS feeds
                 FROM player p JOIN surveyed_display s ON s.id = p.display_id WHERE p.id IN (?) ORDER BY p.id",
                [array_map(strval(...), array_keys($said))],
                [ArrayParameterType::STRING],
            );
            foreach ($players as $row) {
                $id = is_string($row['id']) ? $row['id'] : '';
                $connection->update('player', Player::heard($row, $said[$id]), ['id' => $id]);
            }
            $connection->executeStatement('DELETE FROM player_report WHERE id IN (?)', [array_column($rows, 'id')], [ArrayParameterType::INTEGER]);

            return count($rows);
        });
    }

    /** What was said once is put together once. */
    public function allDue(): void
    {
    }
}
