<?php

declare(strict_types=1);

namespace UpperPane\App\Trigger;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use UpperPane\Core\Units\Instant;

/** Signals that operators ask displays for: told to their players by their pointers, for a short while. */
final readonly class OperatorSignals
{
    /** A player that hears of it later does nothing any more. */
    public const STANDS_MS = 30_000;
    /** So many of a display are told, the last ones. */
    private const MOST = 20;
    /** So long it is known who asked. */
    private const KEPT_MS = 86_400_000;

    public function __construct(private Connection $connection, private ClockInterface $clock)
    {
    }

    /**
     * @param string $id chosen by whoever asks, so that asking twice does it once
     * @param ?array<string, mixed> $row that comes with it
     */
    public function say(string $id, string $display, string $signal, ?array $row, ?string $by): void
    {
        $now = $this->nowMs();
        $this->connection->executeStatement('DELETE FROM operator_signal WHERE said_ms < ?', [$now - self::KEPT_MS]);
        $this->connection->executeStatement(
            'INSERT IGNORE INTO operator_signal (id, display_id, `signal`, row_said, said_ms, said_by) VALUES (?, ?, ?, ?, ?, ?)',
            [$id, $display, $signal, $row === null ? null : json_encode((object) $row, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE), $now, $by],
        );
    }

    /**
     * What players are told now.
     *
     * @param list<string> $displays ids
     * @return array<list<array<string, mixed>>> (docs/formats/release.md, `said`), by display
     */
    public function told(array $displays): array
    {
        $told = [];
        $rows = $displays === [] ? [] : $this->connection->fetchAllAssociative(
            'SELECT id, display_id, `signal`, row_said, said_ms FROM operator_signal WHERE display_id IN (?) AND said_ms > ? ORDER BY said_ms, id',
            [$displays, $this->nowMs() - self::STANDS_MS],
            [ArrayParameterType::STRING],
        );
        foreach ($rows as ['id' => $id, 'display_id' => $display, 'signal' => $signal, 'row_said' => $row, 'said_ms' => $said]) {
            $until = (string) Instant::ofMs((is_numeric($said) ? (int) $said : 0) + self::STANDS_MS);
            if (is_string($display)) {
                $told[$display][] = ['id' => $id, 'signal' => $signal, 'until' => $until] + (is_string($row) ? ['row' => json_decode($row, false)] : []);
            }
        }

        return array_map(static fn (array $all): array => array_slice($all, -self::MOST), $told);
    }

    /**
     * The last that each display was asked for.
     *
     * @param list<string> $displays ids
     * @return array<array{id: string, signal: string, said_at: string, said_by: ?string}> by display
     */
    public function last(array $displays): array
    {
        $last = [];
        $rows = $displays === [] ? [] : $this->connection->fetchAllAssociative(
            'SELECT id, display_id, `signal`, said_ms, said_by FROM operator_signal WHERE display_id IN (?) ORDER BY said_ms, id',
            [$displays],
            [ArrayParameterType::STRING],
        );
        foreach ($rows as ['id' => $id, 'display_id' => $display, 'signal' => $signal, 'said_ms' => $said, 'said_by' => $by]) {
            if (is_string($id) && is_string($display) && is_string($signal) && is_numeric($said)) {
                $last[$display] = ['id' => $id, 'signal' => $signal, 'said_at' => (string) Instant::ofMs((int) $said), 'said_by' => is_string($by) ? $by : null];
            }
        }

        return $last;
    }

    private function nowMs(): int
    {
        return (int) $this->clock->now()->format('Uv');
    }
}
