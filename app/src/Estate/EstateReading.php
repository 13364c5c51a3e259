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
use UpperPane\App\Layout\References;
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
 * (`web/src/Estate/estate.ts` puts them together again). What is null or false is left out of a row.
 *
 * @phpstan-type Row array<string, mixed>
 */
final class EstateReading
{
    /** @var array<string, int> places of what is told once, by what it is */
    private array $places = [];

    /** @var array<string, array{Call, DisplayStatus, int, ?int}> by what a player said, and what it should play */
    private array $calls = [];

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
        private readonly ToldSources $sources,
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
        $this->places = $this->calls = [];
        $this->shared = ['kinds' => [], 'releases' => [], 'standings' => [], 'dues' => []];
        $places = $this->allPlaces->all();
        [$displays, $facts, $of] = $this->displays($wanted->in($places));
        $toArray = static fn (Finding $one): array => $one->toArray();
        $around = array_map($toArray, [...$this->work->facts()->findings($nowMs), ...$this->sources->findings($nowMs)]);

        return [
            'places' => array_map(static fn (Place $place): array => $place->toArray() + ['way' => $place->way()], $places),
            'of' => $of,
            'findings' => [...$around, ...$this->nowhere(), ...$this->untranslated(), ...EstateFindings::of($facts, $nowMs)->toArray()['findings']],
            'displays' => $displays,
        ] + $this->shared;
    }

    /** @return array{list<array<string, mixed>>, list<DisplayFacts>, int} */
    private function displays(EstateFilter $wanted): array
    {
        $older = HandedReleaseRepository::OLDER;
        $rows = $this->connection->fetchAllAssociative(
            "SELECT s.id, s.name, s.place_id, s.alike, s.revision, {$older} AS older, r.id AS release_id, r.made_of, r.number, r.sha256, r.whole_sha256, r.handing_id, r.planned_until, r.plan_trouble
             FROM surveyed_display s LEFT JOIN handed_release r ON r.id = s.current_id WHERE {$this->reach->condition('display', 's.id')} ORDER BY s.position, s.id",
        );
        [$kindKeys, $headKeys, $kindRows, $headRows, $madeOf] = [[], [], [], [], []];
        foreach ($rows as $at => $row) {
            $kindRows[$kindKeys[$at] = self::kindKey($row)] ??= $row;
            if ($row['release_id'] !== null) {
                $headRows[$headKeys[$at] = self::headKey($row)] ??= $row;
                $madeOf[self::text($row['made_of'])] = true;
            }
        }
        $kinds = $this->kinds($kindRows);
        $heads = $this->heads($headRows);
        $players = $this->players();
        $changed = $this->madeOf->changed(array_map(strval(...), array_keys($madeOf)));
        $due = $this->due($rows, $kinds, $kindKeys, $heads, $headKeys);
        [$displays, $facts] = [[], []];
        foreach ($rows as $at => $row) {
            $id = self::text($row['id']);
            $summary = $kinds[$kindKeys[$at]];
            if (!$wanted->all && !$wanted->fits(['name' => $row['name']] + $summary, self::text($row['place_id']))) {
                continue;
            }
            $head = isset($headKeys[$at]) ? $heads[$headKeys[$at]] : null;
            $number = is_int($row['number']) ? $row['number'] : null;
            $isOlder = $row['older'] === 1 || isset($changed[self::text($row['made_of'])]);
            [$told, $calls, $standings] = [[], [], []];
            foreach ($players[$id] ?? [] as $player) {
                [$call, $standing, $place, $plays] = $this->called($player, $head['hashes'] ?? [], $number);
                $standings[] = $standing;
                $calls[] = [self::text($player['name']), $call, $standing];
                $one = Player::inList($player) + ['standing' => $place];
                if ($plays !== null) {
                    $one['plays_release'] = $plays;
                }
                $told[] = $one;
            }
            $one = [
                'id' => $id,
                'name' => $row['name'],
                'place' => $row['place_id'],
                'revision' => $row['revision'],
                'kind' => $this->shared('kinds', $kindKeys[$at], $summary),
                'standing' => $this->standing(DisplayStatus::together($standings), $number, null),
                'players' => $told,
            ];
            if ($head !== null) {
                $one += ['release' => $this->shared('releases', $headKeys[$at], $head['told']), 'number' => $number];
            }
            if ($isOlder) {
                $one['older'] = true;
            }
            if (isset($head['planned'])) {
                $one['planned'] = $head['planned']->message;
            }
            if (isset($due[$id])) {
                $one['due'] = $this->shared('dues', serialize($due[$id]), $due[$id]);
            }
            $displays[] = $one;
            $facts[] = new DisplayFacts(
                $id,
                self::text($row['name']),
                self::text($summary['timezone'] ?? null),
                $calls,
                $head === null || $number === null ? null : ['number' => $number, 'name' => $head['name'], 'source' => $head['source']],
                $isOlder,
                $head['planned'] ?? null,
                $summary['found'],
            );
        }

        return [$displays, $facts, count($rows)];
    }

    /**
     * @param list<Row> $rows
     * @param array<string, array<string, mixed>> $kinds
     * @param array<int, string> $kindKeys by the place of a row
     * @param array<string, array{source: string, ...<string, mixed>}> $heads
     * @param array<int, string> $headKeys by the place of a row
     * @return array<array{plays: ?string, booking: ?string, why: string}> by display id
     */
    private function due(array $rows, array $kinds, array $kindKeys, array $heads, array $headKeys): array
    {
        $ruled = [];
        foreach ($headKeys as $at => $key) {
            if (str_starts_with($heads[$key]['source'], 'schedule:')) {
                $row = $rows[$at];
                $ruled[] = ['id' => self::text($row['id']), 'place' => self::text($row['place_id']), 'timezone' => self::text($kinds[$kindKeys[$at]]['timezone'] ?? null)];
            }
        }

        return $this->due->at($ruled, $this->nowMs);
    }

    /**
     * What is said of displays that are alike and hang in one place: their summaries but for their names.
     *
     * @param array<string, Row> $firsts the first row of each kind
     * @return array<string, array{found: array{stops: int, warnings: int, hints: int}, ...<string, mixed>}>
     */
    private function kinds(array $firsts): array
    {
        $ids = array_map(static fn (array $row): string => self::text($row['id']), $firsts);
        $summaries = $ids === [] ? [] : $this->connection->fetchAllKeyValue('SELECT id, summary FROM surveyed_display WHERE id IN (?)', [array_values($ids)], [ArrayParameterType::STRING]);

        return array_map(static function (string $id) use ($summaries): array {
            /** @var array{found: array{stops: int, warnings: int, hints: int}, ...<string, mixed>} $summary */
            $summary = array_diff_key((array) json_decode(self::text($summaries[$id] ?? null), true, flags: JSON_THROW_ON_ERROR), ['name' => 1]);

            return $summary;
        }, $ids);
    }

    /**
     * What is said of the releases of one handover that are alike, but for their numbers.
     *
     * @param array<string, Row> $firsts the first row of each
     * @return array<string, array{told: array<string, mixed>, name: string, source: string, planned: ?Finding, hashes: list<string>}>
     */
    private function heads(array $firsts): array
    {
        $releases = [];
        foreach (array_chunk(array_column($firsts, 'release_id'), 1000) as $chunk) {
            foreach ($this->releases->rows($chunk) as $row) {
                $releases[is_int($row['id']) ? $row['id'] : 0] = $row;
            }
        }

        return array_map(function (array $first) use ($releases): array {
            $row = $releases[is_int($first['release_id']) ? $first['release_id'] : 0];
            $until = is_string($row['planned_until']) ? strtotime($row['planned_until'] . ' UTC') : false;

            return [
                'told' => array_diff_key(HandedRelease::told($row), ['number' => 1]),
                'name' => self::text($row['name']),
                'source' => self::text($row['source_kind']) . ':' . self::text($row['source_id']),
                'planned' => $until === false ? null : (new Planned($until * 1000, self::maybe($row['planned_then']), self::maybe($row['plan_trouble'])))->finding($this->nowMs),
                'hashes' => array_values(array_filter([$first['sha256'], $first['whole_sha256']], is_string(...))),
            ];
        }, $firsts);
    }

    /** @return array<string, non-empty-list<Row>> those that are bound, by display; the first that was bound first */
    private function players(): array
    {
        $players = [];
        $rows = $this->connection->fetchAllAssociative(
            'SELECT id, name, display_id, part, build, bound_at, called_at, plays_sha256, plays_since, trouble, report_every_s FROM player WHERE revoked_at IS NULL',
        );
        foreach ($rows as $row) {
            $players[self::text($row['display_id'])][] = $row;
        }
        foreach ($players as $display => $several) {
            if (count($several) > 1) {
                usort($several, static fn (array $a, array $b): int => [$a['bound_at'], $a['id']] <=> [$b['bound_at'], $b['id']]);
                $players[$display] = $several;
            }
        }

        return $players;
    }

    /** @return list<array<string, mixed>> */
    private function nowhere(): array
    {
        $rows = $this->connection->fetchAllKeyValue("SELECT id, name FROM design WHERE kind = 'schedule' AND rules_on IS NULL AND {$this->reach->condition('design', 'id')} ORDER BY name, id");

        return array_map(static fn (mixed $name, int|string $id): array => EstateFindings::nowhere((string) $id, self::text($name))->toArray(), $rows, array_keys($rows));
    }

    /** @return list<array<string, mixed>> what stands on displays without a text in a language that they show */
    private function untranslated(): array
    {
        $rows = $this->connection->fetchAllNumeric(
            "SELECT d.id, d.name, f.thing_id, s.id, s.name FROM reference f JOIN design d ON d.id = f.design_id
                JOIN release_part p ON p.design_id = f.design_id AND p.revision = f.revision
                JOIN handed_release r ON r.made_of = p.made_of JOIN surveyed_display s ON s.current_id = r.id
             WHERE f.kind = ? AND (COALESCE(JSON_VALUE(s.settled, '$.languages'), '') = '' OR FIND_IN_SET(BINARY f.thing_id, BINARY JSON_VALUE(s.settled, '$.languages')) > 0)
                AND {$this->reach->condition('display', 's.id')}
             ORDER BY d.name, d.id, s.position, s.id, f.thing_id",
            [References::LACKS],
        );
        $found = [];
        foreach ($rows as [$filled, $name, $language, $display, $called]) {
            $id = self::text($filled);
            $found[$id]['name'] = self::text($name);
            $found[$id]['languages'][self::text($language)] = self::text($language);
            $found[$id]['displays'][self::text($display)] = self::text($called);
        }

        return array_map(
            static fn (array $one, int|string $id): array => EstateFindings::untranslated((string) $id, $one['name'], array_values($one['languages']), $one['displays'])->toArray(),
            $found,
            array_keys($found),
        );
    }

    private function standing(DisplayStatus $standing, ?int $number, ?string $trouble): int
    {
        $key = "$standing->value $number $trouble";

        return $this->places["standings $key"] ?? $this->shared('standings', $key, [
            'state' => $standing->value,
            'level' => $standing->level()?->value,
            'says' => $standing->sentence($number, $trouble),
        ]);
    }

    /**
     * @param 'kinds'|'releases'|'standings'|'dues' $list
     * @param array<string, mixed> $what
     * @return int its place in the list
     */
    private function shared(string $list, string $key, array $what): int
    {
        if (!isset($this->places["$list $key"])) {
            $this->places["$list $key"] = count($this->shared[$list]);
            $this->shared[$list][] = $what;
        }

        return $this->places["$list $key"];
    }

    /**
     * What a player said last, how it stands, the place of that in its list, and which release it plays. Thousands said the same.
     *
     * @param Row $player
     * @param list<string> $hashes of the release of its display
     * @return array{Call, DisplayStatus, int, ?int}
     */
    private function called(array $player, array $hashes, ?int $number): array
    {
        [$plays, $trouble] = [self::maybe($player['plays_sha256']), self::maybe($player['trouble'])];
        $every = is_int($player['report_every_s']) ? $player['report_every_s'] : null;
        $key = self::text($player['called_at']) . '|' . self::text($player['bound_at']) . "|$every|$plays|$trouble|$number|" . ($hashes[0] ?? '');
        if (!isset($this->calls[$key])) {
            $call = new Call($this->ms($player['bound_at']) ?? 0, $this->ms($player['called_at']), $plays, $trouble, $every);
            $standing = DisplayStatus::of($call, $hashes, $this->nowMs);
            $this->calls[$key] = [$call, $standing, $this->standing($standing, $number, $trouble), in_array($plays, $hashes, true) ? $number : null];
        }

        return $this->calls[$key];
    }

    private function ms(mixed $at): ?int
    {
        return is_string($at) ? 1000 * (int) strtotime("$at UTC") : null;
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

    private static function maybe(mixed $value): ?string
    {
        return is_string($value) ? $value : null;
    }

    private static function text(mixed $value): string
    {
        return is_string($value) ? $value : '';
    }
}
