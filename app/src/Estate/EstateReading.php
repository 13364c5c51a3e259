<?php

declare(strict_types=1);

namespace UpperPane\App\Estate;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use UpperPane\App\Account\Reach;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\Places;
use UpperPane\App\Handover\HandedRelease;
use UpperPane\App\Handover\HandedReleaseRepository;
use UpperPane\App\Handover\MadeOf;
use UpperPane\App\Jobs\Work;
use UpperPane\App\Playback\Player;
use UpperPane\App\Time\DueNow;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Handover\DisplayFacts;
use UpperPane\Core\Handover\EstateFindings;
use UpperPane\Core\Handover\Planned;
use UpperPane\Core\Playback\Call;
use UpperPane\Core\Playback\DisplayStatus;

/**
 * The estate as the desk reads it: an estate has thousands of displays, and they are a few dozen kinds, play a few dozen releases and stand in a few ways.
 *
 * What many have in common is told once, and each row says which: `kind`, `release`, `standing` and `due` are places in the lists of these names
 * (`web/src/Estate/estate.ts` puts them together again).
 *
 * @phpstan-type Row array<string, mixed>
 */
final class EstateReading
{
    /** @var array<string, int> places of what is told once, by what it is */
    private array $places = [];

    /** @var array<string, int> Unix ms of instants as they are kept */
    private array $times = [];

    /** @var array{kinds: list<mixed>, releases: list<mixed>, standings: list<mixed>, dues: list<mixed>} */
    private array $shared = ['kinds' => [], 'releases' => [], 'standings' => [], 'dues' => []];

    /** Unix ms */
    private int $nowMs = 0;

    public function __construct(
        private readonly Connection $connection,
        private readonly Places $allPlaces,
        private readonly HandedReleaseRepository $releases,
        private readonly MadeOf $madeOf,
        private readonly DueNow $due,
        private readonly Work $work,
        private readonly Reach $reach,
    ) {
    }

    /**
     * @param int $nowMs Unix ms
     * @return array<string, mixed>
     */
    public function of(EstateFilter $wanted, int $nowMs): array
    {
        $this->nowMs = $nowMs;
        $this->places = $this->times = [];
        $this->shared = ['kinds' => [], 'releases' => [], 'standings' => [], 'dues' => []];
        $places = $this->allPlaces->all();
        [$displays, $facts, $of] = $this->displays($wanted->in($places), $this->due->at($nowMs));
        $workFindings = array_map(static fn (Finding $one): array => $one->toArray(), $this->work->facts()->findings($nowMs));

        return [
            'places' => array_map(static fn (Place $place): array => $place->toArray() + ['way' => $place->way()], $places),
            'of' => $of,
            'findings' => [...$workFindings, ...$this->nowhere(), ...EstateFindings::of($facts, $nowMs)->toArray()['findings']],
            'displays' => $displays,
        ] + $this->shared;
    }

    /**
     * @param array<mixed> $due
     * @return array{list<array<string, mixed>>, list<DisplayFacts>, int}
     */
    private function displays(EstateFilter $wanted, array $due): array
    {
        $older = HandedReleaseRepository::OLDER;
        $rows = $this->connection->fetchAllAssociative(
            "SELECT s.id, s.name, s.place_id, s.alike, s.revision, {$older} AS older, r.id AS release_id, r.made_of, r.number, r.sha256, r.whole_sha256, r.handing_id, r.planned_until, r.plan_trouble
             FROM surveyed_display s LEFT JOIN handed_release r ON r.id = s.current_id WHERE {$this->reach->condition('display', 's.id')} ORDER BY s.position, s.id",
        );
        $kinds = $this->kinds($rows);
        $heads = $this->heads($rows);
        $players = $this->players();
        $changed = $this->madeOf->changed();
        [$displays, $facts] = [[], []];
        foreach ($rows as $row) {
            $id = self::text($row['id']);
            $kind = self::kindKey($row);
            $summary = $kinds[$kind];
            if (!$wanted->all && !$wanted->fits(['name' => $row['name']] + $summary, self::text($row['place_id']))) {
                continue;
            }
            $key = $row['release_id'] === null ? '' : self::headKey($row);
            $head = $heads[$key] ?? null;
            $hashes = self::hashes($row);
            $number = is_int($row['number']) ? $row['number'] : null;
            $isOlder = $head !== null && ($row['older'] === 1 || isset($changed[self::text($row['made_of'])]));
            [$told, $calls, $standings] = [[], [], []];
            foreach ($players[$id] ?? [] as $player) {
                $call = $this->call($player);
                $standing = DisplayStatus::of($call, $hashes, $this->nowMs);
                $standings[] = $standing;
                $calls[] = [self::text($player['name']), $call, $standing];
                $told[] = Player::inList($player) + [
                    'plays_release' => in_array($player['plays_sha256'], $hashes, true) ? $number : null,
                    'standing' => $this->standing($standing, $number, $call->trouble),
                ];
            }
            $displays[] = [
                'id' => $id,
                'name' => $row['name'],
                'place' => $row['place_id'],
                'revision' => $row['revision'],
                'kind' => $this->places["kinds $kind"] ?? $this->shared('kinds', $kind, static fn (): array => $summary),
                'number' => $number,
                'release' => $head === null ? null : $this->places["releases $key"] ?? $this->shared('releases', $key, static fn (): array => $head['told']),
                'older' => $isOlder,
                'planned' => $head['planned']->message ?? null,
                'standing' => $this->standing(DisplayStatus::together($standings), $number, null),
                'due' => isset($due[$id]) ? $this->shared('dues', serialize($due[$id]), static fn (): mixed => $due[$id]) : null,
                'players' => $told,
            ];
            $facts[] = new DisplayFacts(
                $id,
                self::text($row['name']),
                self::text($summary['timezone'] ?? null),
                $calls,
                $head === null || $number === null ? null : ['number' => $number, 'name' => self::text($head['told']['name']), 'source' => $head['source']],
                $isOlder,
                $head['planned'] ?? null,
                $summary['found'],
            );
        }

        return [$displays, $facts, count($rows)];
    }

    /**
     * What is said of displays that are alike and hang in one place: their summaries but for their names.
     *
     * @param list<Row> $rows
     * @return array<string, array{found: array{stops: int, warnings: int, hints: int}, ...<string, mixed>}>
     */
    private function kinds(array $rows): array
    {
        $firsts = [];
        foreach ($rows as $row) {
            $firsts[self::kindKey($row)] ??= self::text($row['id']);
        }
        $summaries = $firsts === [] ? [] : $this->connection->fetchAllKeyValue('SELECT id, summary FROM surveyed_display WHERE id IN (?)', [array_values($firsts)], [ArrayParameterType::STRING]);

        return array_map(static function (string $id) use ($summaries): array {
            /** @var array{found: array{stops: int, warnings: int, hints: int}, ...<string, mixed>} $summary */
            $summary = array_diff_key((array) json_decode(self::text($summaries[$id] ?? null), true, flags: JSON_THROW_ON_ERROR), ['name' => 1]);

            return $summary;
        }, $firsts);
    }

    /**
     * What is said of the releases of one handover that are alike, but for their numbers.
     *
     * @param list<Row> $rows
     * @return array<string, array{told: array<string, mixed>, source: string, planned: ?Finding}>
     */
    private function heads(array $rows): array
    {
        $firsts = [];
        foreach ($rows as $row) {
            if ($row['release_id'] !== null) {
                $firsts[self::headKey($row)] ??= $row['release_id'];
            }
        }
        $releases = [];
        foreach (array_chunk(array_values($firsts), 1000) as $chunk) {
            foreach ($this->releases->rows($chunk) as $row) {
                $releases[is_int($row['id']) ? $row['id'] : 0] = $row;
            }
        }

        return array_map(function (mixed $id) use ($releases): array {
            $row = $releases[is_int($id) ? $id : 0];
            $until = is_string($row['planned_until']) ? strtotime($row['planned_until'] . ' UTC') : false;
            [$then, $trouble] = array_map(static fn (string $column): ?string => is_string($row[$column]) ? $row[$column] : null, ['planned_then', 'plan_trouble']);

            return [
                'told' => array_diff_key(HandedRelease::told($row), ['number' => 1]),
                'source' => self::text($row['source_kind']) . ':' . self::text($row['source_id']),
                'planned' => $until === false ? null : (new Planned($until * 1000, $then, $trouble))->finding($this->nowMs),
            ];
        }, $firsts);
    }

    /** @return array<string, non-empty-list<Row>> those that are bound, by display */
    private function players(): array
    {
        $players = [];
        $rows = $this->connection->fetchAllAssociative(
            'SELECT id, name, display_id, part, build, bound_at, called_at, plays_sha256, plays_since, trouble, report_every_s FROM player WHERE revoked_at IS NULL ORDER BY bound_at, id',
        );
        foreach ($rows as $row) {
            $players[self::text($row['display_id'])][] = $row;
        }

        return $players;
    }

    /** @return list<array<string, mixed>> */
    private function nowhere(): array
    {
        $rows = $this->connection->fetchAllKeyValue("SELECT id, name FROM design WHERE kind = 'schedule' AND rules_on IS NULL AND {$this->reach->condition('design', 'id')} ORDER BY name, id");

        return array_map(static fn (mixed $name, int|string $id): array => EstateFindings::nowhere((string) $id, self::text($name))->toArray(), $rows, array_keys($rows));
    }

    private function standing(DisplayStatus $standing, ?int $number, ?string $trouble): int
    {
        $key = "$standing->value $number $trouble";

        return $this->places["standings $key"] ?? $this->shared('standings', $key, static fn (): array => [
            'state' => $standing->value,
            'level' => $standing->level()?->value,
            'says' => $standing->sentence($number, $trouble),
        ]);
    }

    /**
     * @param 'kinds'|'releases'|'standings'|'dues' $list
     * @param \Closure(): mixed $what
     * @return int its place in the list
     */
    private function shared(string $list, string $key, \Closure $what): int
    {
        if (!isset($this->places["$list $key"])) {
            $this->places["$list $key"] = count($this->shared[$list]);
            $this->shared[$list][] = $what();
        }

        return $this->places["$list $key"];
    }

    /** @param Row $player */
    private function call(array $player): Call
    {
        return new Call(
            $this->ms($player['bound_at']) ?? 0,
            $this->ms($player['called_at']),
            is_string($player['plays_sha256']) ? $player['plays_sha256'] : null,
            is_string($player['trouble']) ? $player['trouble'] : null,
            is_int($player['report_every_s']) ? $player['report_every_s'] : null,
        );
    }

    /** Thousands of players called within the same few minutes: each time is read once. */
    private function ms(mixed $at): ?int
    {
        return is_string($at) ? $this->times[$at] ??= 1000 * (int) strtotime("$at UTC") : null;
    }

    /**
     * SHA-256 of its release, as a manifest and in one piece.
     *
     * @param Row $row
     * @return list<string>
     */
    private static function hashes(array $row): array
    {
        $hashes = [];
        foreach (['sha256', 'whole_sha256'] as $column) {
            if (is_string($row[$column])) {
                $hashes[] = $row[$column];
            }
        }

        return $hashes;
    }

    /** @param Row $row */
    private static function kindKey(array $row): string
    {
        return self::text($row['alike']) . ' ' . self::text($row['place_id']);
    }

    /** @param Row $row */
    private static function headKey(array $row): string
    {
        $key = self::text($row['sha256']) . ' ' . self::text($row['handing_id']) . ' ' . self::text($row['planned_until']) . ' ' . self::text($row['plan_trouble']);

        return is_int($row['release_id']) && $row['handing_id'] === null ? "$key {$row['release_id']}" : $key;
    }

    private static function text(mixed $value): string
    {
        return is_string($value) ? $value : '';
    }
}
