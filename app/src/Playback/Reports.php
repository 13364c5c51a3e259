<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use UpperPane\App\Jobs\Errand;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Playback\Report\Report;

/**
 * What players say of themselves: appended as it comes, without a lock and without looking at a display, and put together by the keeper.
 *
 * So ten thousand players that speak at once wait for nobody, and nobody waits for them.
 */
final readonly class Reports implements Errand
{
    /** So many are put together in one transaction. */
    private const BATCH = 1000;

    public function __construct(private Connection $connection, private ClockInterface $clock, private SeenThings $seen, private Callers $callers)
    {
    }

    /**
     * @param string $secret of the player's address
     * @return bool whether there is such a player
     */
    public function hear(string $secret, Report $said): bool
    {
        $player = $this->callers->player($secret);
        if ($player === null) {
            return false;
        }
        $text = json_encode(['at' => $this->clock->now()->getTimestamp(), 'report' => $said->toArray()], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
        $this->connection->insert('player_report', ['player_id' => $player, 'said' => $text]);

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
                $one = json_decode($text, true, flags: JSON_THROW_ON_ERROR);
                assert(is_array($one) && is_int($one['at']));
                $said[$player][] = [$one['at'], Report::read(Node::root($one['report'] ?? self::before($one)))];
            }
            $players = $connection->fetchAllAssociative(
                "SELECT p.id, p.display_id, p.part, p.calls, p.bound_at, p.build, JSON_EXTRACT(s.summary, '$.feeds') AS feeds, JSON_VALUE(s.summary, '$.timezone') AS timezone
                 FROM player p JOIN surveyed_display s ON s.id = p.display_id WHERE p.id IN (?) ORDER BY p.id",
                [array_map(strval(...), array_keys($said))],
                [ArrayParameterType::STRING],
            );
            foreach ($players as $row) {
                $id = is_string($row['id']) ? $row['id'] : '';
                [$columns, $batches] = Player::heard($row, $said[$id]);
                $connection->update('player', $columns, ['id' => $id]);
                $this->seen->take($row, $batches);
            }
            $this->seen->write();
            $connection->executeStatement('DELETE FROM player_report WHERE id IN (?)', [array_column($rows, 'id')], [ArrayParameterType::INTEGER]);

            return count($rows);
        });
    }

    /**
     * One that was taken by the code before this, and not put together yet.
     *
     * @param array<mixed> $one
     * @return array<mixed>
     */
    private static function before(array $one): array
    {
        return array_diff_key($one, ['at' => 1]);
    }

    public static function isQuick(): bool
    {
        return true;
    }

    /** What was said once is put together once. */
    public function allDue(): void
    {
    }
}
