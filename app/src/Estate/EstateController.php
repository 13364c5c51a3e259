<?php

declare(strict_types=1);

namespace UpperPane\App\Estate;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Handover\HandedRelease;
use UpperPane\App\Handover\HandedReleaseRepository;
use UpperPane\App\Jobs\Work;
use UpperPane\App\Playback\Player;
use UpperPane\App\Time\DueNow;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Handover\DisplayFacts;
use UpperPane\Core\Handover\EstateFindings;
use UpperPane\Core\Handover\Planned;
use UpperPane\Core\Playback\DisplayStatus;

/**
 * The tree of places with all displays, as every station of the desk needs it. Read as plain rows, since an estate has thousands.
 *
 * @phpstan-type Row array<string, mixed>
 */
final readonly class EstateController
{
    private const JSON = JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE;

    public function __construct(private EntityManagerInterface $entities, private HandedReleaseRepository $releases, private DueNow $due, private Work $work, private ClockInterface $clock)
    {
    }

    /** All of it, or with `search`, `place`, `orientation` and `kind` (`panel` or `wall`) what fits. */
    #[Route('/api/estate', methods: ['GET'])]
    public function show(Request $request): JsonResponse
    {
        $places = $this->entities->getRepository(Place::class)->findBy([], ['position' => 'ASC', 'id' => 'ASC']);
        $now = $this->clock->now();
        $wanted = EstateFilter::of($request, $places);
        $ways = [];
        foreach ($places as $place) {
            $ways[$place->id] = $place->way();
        }
        $players = $this->players();
        $older = array_column(array_merge(...array_values($this->releases->currentBySource())), 'older', 'display');
        $rows = $this->entities->getConnection()->fetchAllAssociative(
            'SELECT s.id, s.place_id, s.summary, s.revision, r.number, r.sha256, r.file, r.bytes, r.source_kind, r.source_id, r.source_revision, r.name,
                r.handed_over_at, r.handed_over_by, r.planned_until, r.planned_then, r.plan_trouble, r.puts_back, r.whole_sha256
             FROM surveyed_display s LEFT JOIN handed_release r ON r.id = s.current_id ORDER BY s.position, s.id',
        );
        $nowMs = (int) $now->format('Uv');
        $due = $this->due->at($nowMs);
        [$displays, $facts] = [[], []];
        foreach ($rows as $row) {
            [$id, $place] = [self::text($row['id']), self::text($row['place_id'])];
            $summary = self::text($row['summary']);
            if ($wanted->all || $wanted->fits((array) json_decode($summary, true), $place, $ways[$place] ?? [])) {
                $told = self::display($row, $ways[$place] ?? [], $players[$id] ?? [], $older[$id] ?? false, $nowMs);
                $facts[] = self::facts($row, $summary, $players[$id] ?? [], $older[$id] ?? false, $nowMs);
                $told['due'] = $due[$id] ?? null;
                // The summary is JSON already, and never empty: it is put in as it stands.
                $displays[] = substr(json_encode($told, self::JSON), 0, -1) . ',' . substr($summary, 1);
            }
        }
        $head = json_encode([
            'now' => $now->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z'),
            'places' => array_map(static fn (Place $place): array => $place->toArray(), $places),
            'of' => count($rows),
            'findings' => [
                ...array_map(static fn (Finding $finding): array => $finding->toArray(), $this->work->facts()->findings($nowMs)),
                ...EstateFindings::of($facts, $nowMs)->toArray()['findings'],
            ],
        ], self::JSON);

        return JsonResponse::fromJsonString(substr($head, 0, -1) . ',"displays":[' . implode(',', $displays) . ']}');
    }

    /** @return array<string, non-empty-list<Row>> those that are bound, by display */
    private function players(): array
    {
        $players = [];
        foreach ($this->entities->getConnection()->fetchAllAssociative('SELECT * FROM player WHERE revoked_at IS NULL ORDER BY bound_at, id') as $row) {
            $players[self::text($row['display_id'])][] = $row;
        }

        return $players;
    }

    /**
     * What is said of a display beside its summary.
     *
     * @param Row $row
     * @param list<string> $way
     * @param list<Row> $players
     * @param bool $older whether its release is not what is saved by now
     * @return array<mixed>
     */
    private static function display(array $row, array $way, array $players, bool $older, int $now): array
    {
        $release = $row['number'] === null ? null : HandedRelease::told($row);
        $number = is_int($row['number']) ? $row['number'] : null;
        $standings = array_map(static fn (array $player): DisplayStatus => DisplayStatus::of(Player::callOf($player), self::hashes($row), $now), $players);

        return ['id' => $row['id'], 'place' => $row['place_id'], 'way' => $way, 'revision' => $row['revision']] + [
            'release' => $release,
            'saved_not_handed_over' => $older,
            'planned' => self::planned($row, $now)?->message,
            'standing' => self::standing(DisplayStatus::together($standings), $number, null),
            'players' => array_map(
                static fn (array $player, DisplayStatus $standing): array => Player::told($player) + [
                    'plays_release' => in_array($player['plays_sha256'], self::hashes($row), true) ? $number : null,
                    'standing' => self::standing($standing, $number, is_string($player['trouble']) ? $player['trouble'] : null),
                ],
                $players,
                $standings,
            ),
        ];
    }

    /**
     * What is known of a display where something may be wrong.
     *
     * @param Row $row
     * @param list<Row> $players
     */
    private static function facts(array $row, string $summary, array $players, bool $isOlder, int $now): DisplayFacts
    {
        preg_match('/"found":\s*\{"stops":\s*(\d+),\s*"warnings":\s*(\d+),\s*"hints":\s*(\d+)\}/', $summary, $found);
        $number = is_int($row['number']) ? $row['number'] : null;

        return new DisplayFacts(
            self::text($row['id']),
            static function () use ($summary): array {
                $told = Node::root(json_decode($summary, true));

                return ['name' => $told->field('name')->text(), 'timezone' => $told->field('timezone')->text()];
            },
            array_map(static fn (array $player): array => [self::text($player['name']), Player::callOf($player)], $players),
            $number === null ? null : [
                'number' => $number,
                'sha256' => self::hashes($row),
                'name' => self::text($row['name']),
                'source' => self::text($row['source_kind']) . ':' . self::text($row['source_id']),
            ],
            $isOlder,
            self::planned($row, $now),
            ['stops' => (int) ($found[1] ?? 0), 'warnings' => (int) ($found[2] ?? 0), 'hints' => (int) ($found[3] ?? 0)],
        );
    }

    /**
     * What is found in the plan of its release.
     *
     * @param Row $row
     */
    private static function planned(array $row, int $now): ?Finding
    {
        $until = is_string($row['planned_until']) ? strtotime($row['planned_until'] . ' UTC') : false;

        [$then, $trouble] = array_map(static fn (string $column): ?string => is_string($row[$column]) ? $row[$column] : null, ['planned_then', 'plan_trouble']);

        return $until === false ? null : (new Planned($until * 1000, $then, $trouble))->finding($now);
    }

    /**
     * SHA-256 of its release, as a manifest and in one piece.
     *
     * @param Row $row
     * @return list<string>
     */
    private static function hashes(array $row): array
    {
        return array_values(array_filter([$row['sha256'], $row['whole_sha256']], is_string(...)));
    }

    /** @return array{state: string, level: ?string, says: string} */
    private static function standing(DisplayStatus $standing, ?int $release, ?string $trouble): array
    {
        return ['state' => $standing->value, 'level' => $standing->level()?->value, 'says' => $standing->sentence($release, $trouble)];
    }

    private static function text(mixed $value): string
    {
        return is_string($value) ? $value : '';
    }
}
