<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\DBAL\Connection;

/** Which player calls, by the secret of its address. */
final readonly class Callers
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return ?string id of the player; null where there is none, or where it was taken back */
    public function player(string $secret): ?string
    {
        $id = $this->connection->fetchOne('SELECT id FROM player WHERE secret = ? AND revoked_at IS NULL', [$secret]);

        return is_string($id) ? $id : null;
    }
}
