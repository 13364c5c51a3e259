<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\ParameterType;
use Psr\Clock\ClockInterface;
use UpperPane\App\Http\Problem;

/**
 * What is really on the glass: the last picture of each output of a player, taken from its browser by an agent beside it
 * (web/public/glass-agent.mjs).
 */
final readonly class GlassPictures
{
    /** As many bytes as a player may send at once. */
    public const MOST_BYTES = 62_000;
    private const MOST_PX = 2000;
    /** The next one is due so much later; sooner while somebody looks on. */
    private const EVERY_S = 300;
    private const SOON_S = 15;
    private const LOOKING_S = 120;
    private const OLDEST_MS = 60_000;

    public function __construct(private Connection $connection, private ClockInterface $clock, private Callers $callers)
    {
    }

    /**
     * @param string $secret of the player's address
     * @param int $output 1 for that of a player which has only one
     * @param int $ageMs how long ago it was drawn; what is older than a minute is not believed
     * @return ?int after how many s the next one is due; null where there is no such player
     * @throws Problem where it is no picture
     */
    public function take(string $secret, int $output, int $ageMs, string $picture): ?int
    {
        $player = $this->callers->player($secret);
        if ($player === null) {
            return null;
        }
        $size = strlen($picture) > self::MOST_BYTES ? false : @getimagesizefromstring($picture);
        if ($size === false || $size[2] !== IMAGETYPE_JPEG || max($size[0], $size[1]) > self::MOST_PX) {
            throw new Problem(422, 'picture.wrong', sprintf('This is no JPEG of at most %d bytes and %d px.', self::MOST_BYTES, self::MOST_PX));
        }
        $now = $this->clock->now();
        $this->connection->executeStatement(
            'INSERT INTO glass_picture (player_id, output, taken_at, picture) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE taken_at = VALUES(taken_at), picture = VALUES(picture)',
            [$player, $output, $now->modify('-' . max(0, min(self::OLDEST_MS, $ageMs)) . ' milliseconds')->format('Y-m-d H:i:s.v'), $picture],
            [ParameterType::STRING, ParameterType::INTEGER, ParameterType::STRING, ParameterType::LARGE_OBJECT],
        );
        $wanted = $this->connection->fetchOne('SELECT wanted_at FROM glass_picture WHERE player_id = ? AND output = ?', [$player, $output]);

        return is_string($wanted) && (int) strtotime("$wanted UTC") > $now->getTimestamp() - self::LOOKING_S ? self::SOON_S : self::EVERY_S;
    }

    /**
     * Of the players of a display, for somebody who looks at them: they are taken more often then.
     *
     * @return list<array{player: string, name: string, output: int, at: string}>
     */
    public function lookedAt(string $display): array
    {
        $now = $this->clock->now();
        $this->connection->executeStatement(
            'UPDATE glass_picture g JOIN player p ON p.id = g.player_id SET g.wanted_at = ? WHERE p.display_id = ? AND p.revoked_at IS NULL AND (g.wanted_at IS NULL OR g.wanted_at < ?)',
            [$now->format('Y-m-d H:i:s'), $display, $now->modify('-' . intdiv(self::LOOKING_S, 2) . ' seconds')->format('Y-m-d H:i:s')],
        );
        /** @var list<array{player: string, name: string, output: int, at: string}> */
        return $this->connection->fetchAllAssociative(
            "SELECT p.id AS player, p.name, g.output, CONCAT(LEFT(DATE_FORMAT(g.taken_at, '%Y-%m-%dT%H:%i:%s.%f'), 23), 'Z') AS at
             FROM glass_picture g JOIN player p ON p.id = g.player_id WHERE p.display_id = ? AND p.revoked_at IS NULL ORDER BY p.bound_at, p.id, g.output",
            [$display],
        );
    }

    public function of(Player $player, int $output): string
    {
        $picture = $this->connection->fetchOne('SELECT picture FROM glass_picture WHERE player_id = ? AND output = ?', [$player->id, $output]);

        return is_string($picture) ? $picture : throw Problem::notFound('A picture of this glass');
    }
}
