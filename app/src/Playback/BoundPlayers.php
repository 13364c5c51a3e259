<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\DBAL\Connection;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Holding;

/** A display stays as long as a player plays on it; those that did before go with it. */
final readonly class BoundPlayers implements Holding
{
    public function __construct(private Connection $connection)
    {
    }

    public function letsGo(About $thing): void
    {
        if ($thing->kind !== 'display') {
            return;
        }
        $bound = $this->connection->fetchOne('SELECT COUNT(*) FROM player WHERE display_id = ? AND revoked_at IS NULL', [$thing->id]);
        if (is_numeric($bound) && (int) $bound > 0) {
            throw new Problem(409, 'display.bound', sprintf('%d players play on "%s". Take their addresses back first.', (int) $bound, $thing->name));
        }
        $this->connection->executeStatement('UPDATE pairing SET player_id = NULL WHERE player_id IN (SELECT id FROM player WHERE display_id = ?)', [$thing->id]);
    }

    public function goesWith(string $kind): array
    {
        return $kind === 'display' ? ['player' => 'display_id = ?'] : [];
    }

    public function forgets(string $kind): array
    {
        return [];
    }
}
