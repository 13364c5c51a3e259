<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use UpperPane\App\Account\Reach;
use UpperPane\Core\Units\Instant;

/** What was put up in a hurry, and where it stands until when: written by who puts it up, read by whoever writes pointers. */
final readonly class InForce
{
    /** What is over is told for so long. */
    private const TOLD_MS = 86_400_000;
    private const MOST = 100;
    private const CHUNK = 500;

    public function __construct(private Connection $connection, private Reach $reach, private ClockInterface $clock)
    {
    }

    /**
     * @param array{id: string, kind: string, name: string, reason: ?string, document: string, place: string, begun_ms: int, until_ms: int, begun_by: ?string} $row
     * @param list<array{displays: list<string>, until_ms: int, plane: array<string, mixed>}> $groups of displays that draw the same
     */
    public function keep(array $row, array $groups): void
    {
        $this->connection->insert('in_force', $row);
        foreach ($groups as ['displays' => $displays, 'until_ms' => $untilMs, 'plane' => $plane]) {
            $json = json_encode($plane, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE);
            foreach (array_chunk($displays, self::CHUNK) as $chunk) {
                $this->connection->executeStatement(
                    'INSERT INTO in_force_on (in_force_id, display_id, until_ms, plane) SELECT ?, s.id, ?, ? FROM surveyed_display s WHERE s.id IN (?)',
                    [$row['id'], $untilMs, $json, $chunk],
                    [3 => ArrayParameterType::STRING],
                );
            }
        }
    }

    /** @return list<string> the displays on which it stood, which is over from now on; none where it was already */
    public function end(string $id, ?string $by): array
    {
        $now = $this->nowMs();
        $ended = $this->connection->executeStatement('UPDATE in_force SET ended_ms = ?, ended_by = ? WHERE id = ? AND ended_ms IS NULL AND until_ms > ?', [$now, $by, $id, $now]);
        $this->connection->executeStatement('UPDATE in_force_on SET until_ms = LEAST(until_ms, ?) WHERE in_force_id = ?', [$now, $id]);

        return $ended === 0 ? [] : array_values(array_filter($this->connection->fetchFirstColumn('SELECT display_id FROM in_force_on WHERE in_force_id = ?', [$id]), is_string(...)));
    }

    /**
     * One that stands on a display within reach, or has stood there.
     *
     * @return ?array<string, mixed>
     */
    public function one(string $id): ?array
    {
        return $this->told('f.id = ?', [$id])[0] ?? null;
    }

    /** @return list<array<string, mixed>> what stands within reach, and what stood there within a day, the last first */
    public function all(): array
    {
        return $this->told('GREATEST(f.until_ms, COALESCE(f.ended_ms, 0)) > ?', [$this->nowMs() - self::TOLD_MS]);
    }

    /** On how many displays one stands, whoever asks. */
    public function displays(string $id): int
    {
        $count = $this->connection->fetchOne('SELECT COUNT(*) FROM in_force_on WHERE in_force_id = ?', [$id]);

        return is_int($count) ? $count : 0;
    }

    /** @return ?string the kind of one, whoever asks; null where there is none */
    public function kind(string $id): ?string
    {
        $kind = $this->connection->fetchOne('SELECT kind FROM in_force WHERE id = ?', [$id]);

        return is_string($kind) ? $kind : null;
    }

    /**
     * What stands on displays at this moment, beside what was handed over to them.
     *
     * @param ?list<string> $displays ids; null for all within reach
     * @return array<list<array<string, mixed>>> planes (docs/formats/release.md), by display
     */
    public function planes(?array $displays = null): array
    {
        $within = $displays === null ? $this->reach->condition('display', 'o.display_id') : 'o.display_id IN (?)';
        $rows = $displays === [] ? [] : $this->connection->fetchAllAssociative(
            "SELECT o.display_id, o.plane FROM in_force_on o JOIN in_force f ON f.id = o.in_force_id WHERE o.until_ms > ? AND f.ended_ms IS NULL AND $within ORDER BY f.begun_ms, f.id",
            [$this->nowMs(), ...($displays === null ? [] : [$displays])],
            $displays === null ? [] : [1 => ArrayParameterType::STRING],
        );
        $planes = [];
        foreach ($rows as ['display_id' => $display, 'plane' => $json]) {
            $plane = json_decode(is_string($json) ? $json : '', true);
            if (is_string($display) && is_array($plane)) {
                /** @var array<string, mixed> $plane */
                $planes[$display][] = $plane;
            }
        }

        return $planes;
    }

    /**
     * Those of a release with what stands beside it, the lowest first.
     *
     * @param array<mixed> $planes
     * @param list<array<string, mixed>> $above
     * @return array<mixed>
     */
    public static function above(array $planes, array $above): array
    {
        if ($above === []) {
            return $planes;
        }
        $all = [...array_values(array_filter(is_array($planes['above'] ?? null) ? $planes['above'] : [], is_array(...))), ...$above];
        $lies = static fn (array $plane): array => [...(is_array($plane['lies'] ?? null) ? $plane['lies'] : [0, 0, 0]), $plane['id'] ?? ''];
        usort($all, static fn (array $a, array $b): int => $lies($a) <=> $lies($b));

        return ['above' => $all] + $planes;
    }

    /**
     * @param list<mixed> $values
     * @return list<array<string, mixed>>
     */
    private function told(string $which, array $values): array
    {
        $rows = $this->connection->fetchAllAssociative(
            "SELECT f.id, f.kind, f.name, f.reason, f.document, f.place, f.begun_ms, f.begun_by, f.ended_ms, f.ended_by, COUNT(*) AS displays, MIN(o.until_ms) AS first_ms, MAX(o.until_ms) AS last_ms
             FROM in_force f JOIN in_force_on o ON o.in_force_id = f.id WHERE $which AND {$this->reach->condition('display', 'o.display_id')}
             GROUP BY f.id ORDER BY f.begun_ms DESC, f.id DESC LIMIT " . self::MOST,
            $values,
        );
        $now = $this->nowMs();

        return array_map(static function (array $row) use ($now): array {
            $instant = static fn (mixed $ms): ?string => is_numeric($ms) ? (string) Instant::ofMs((int) $ms) : null;
            $document = json_decode(is_string($row['document']) ? $row['document'] : '', true);

            return [
                'stands' => $row['ended_ms'] === null && is_numeric($row['last_ms']) && (int) $row['last_ms'] > $now,
                'begun_at' => $instant($row['begun_ms']),
                'until' => $instant($row['last_ms']),
                'until_first' => $instant($row['first_ms']),
                'ended_at' => $instant($row['ended_ms']),
                'text' => is_array($document) && is_string($document['text'] ?? null) ? $document['text'] : null,
            ] + array_diff_key($row, ['document' => 1, 'begun_ms' => 1, 'ended_ms' => 1, 'first_ms' => 1, 'last_ms' => 1]);
        }, $rows);
    }

    public function nowMs(): int
    {
        return (int) $this->clock->now()->format('Uv');
    }
}
