<?php

declare(strict_types=1);

namespace UpperPane\App\Panel;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Handover\HandedReleaseRepository;
use UpperPane\App\Handover\Programmes;
use UpperPane\App\Http\Problem;
use UpperPane\App\Playback\Player;
use UpperPane\App\Trigger\OperatorSignals;
use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Panel\Panel;
use UpperPane\Core\Panel\PanelKey;
use UpperPane\Core\Playback\DisplayStatus;
use UpperPane\Core\Trigger\Contents;

/** A panel as whoever has it open sees it: its keys, what stands because of them, and whether the players say so. */
final readonly class PanelTold
{
    /** On a key: ink as of the desk, or white, whatever is read better. */
    private const INKS = ['#17272e', '#ffffff'];
    /** Of a signal. */
    private const MOST_ROWS = 200;
    /** Where a key does not say by which of its fields a row is told. */
    private const SOME_FIELDS = 3;

    public function __construct(
        private Connection $connection,
        private Displays $displays,
        private HandedReleaseRepository $releases,
        private Programmes $programmes,
        private PutOnDisplay $put,
        private OperatorSignals $signals,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @return array{name: string, groups: list<array{name: string, keys: list<array<string, mixed>>}>, displays: list<array<string, mixed>>} of displays within reach alone
     * @throws Refused
     */
    public function of(Panel $panel): array
    {
        $displays = [];
        foreach ($panel->keys as $key) {
            $display = $this->displays->find($key->display);
            if ($display instanceof SurveyedDisplay) {
                $displays[$display->id] = $display;
            }
        }
        $answers = array_map($this->answers(...), $displays);
        $stands = array_map($this->put->stands(...), $displays);
        // Once for each display, however many keys it has.
        $styles = array_map(fn (SurveyedDisplay $one): Styles => $this->programmes->surroundings($one)->styles, $displays);
        $groups = [];
        foreach ($panel->groups as $group) {
            $groups[] = ['name' => $group['name'], 'keys' => array_map(
                fn (PanelKey $key): array => $this->key($key, $displays[$key->display] ?? null, $answers[$key->display] ?? [], $stands[$key->display][0] ?? [], $styles[$key->display] ?? null),
                $group['keys'],
            )];
        }
        $ids = array_map(strval(...), array_keys($displays));
        $last = $this->signals->last($ids);

        return ['name' => $panel->name, 'groups' => $groups, 'displays' => array_map(
            fn (SurveyedDisplay $one): array => $this->display($one, $answers[$one->id] ?? [], $stands[$one->id] ?? [[], null], $last[$one->id] ?? null),
            array_values($displays),
        )];
    }

    /** The map that hears a signal on a display, as it was handed over; null where none does. */
    public function hears(SurveyedDisplay $display, string $signal): ?Contents
    {
        return array_values(array_filter($this->answers($display), static fn (Contents $one): bool => isset($one->map->signals[$signal])))[0] ?? null;
    }

    /** @return list<Contents> */
    private function answers(SurveyedDisplay $display): array
    {
        $contents = $this->releases->contentsOn($display);
        try {
            return $contents === null ? [] : $this->programmes->answersOn($contents, $display);
        } catch (Problem | Refused) {
            return [];
        }
    }

    /**
     * @param list<Contents> $answers
     * @param list<array{zone: ?string, name: string, plays: array<string, string>, since: string, until: ?string}> $stands
     * @return array<string, mixed>
     */
    private function key(PanelKey $key, ?SurveyedDisplay $display, array $answers, array $stands, ?Styles $styles): array
    {
        $told = ['id' => $key->id, 'name' => $key->name, 'display' => $key->display, 'press' => $key->press] + self::colours($key, $styles);
        if ($display === null) {
            return $told + ['trouble' => 'Its display is not yours, or there is none any more.'];
        }
        if ($key->signal === null) {
            $isThere = static fn (array $one): bool => $one['zone'] === $key->zone && $one['plays'] === $key->plays?->toArray();

            return $told + ['zone' => $key->zone, 'for_min' => $key->forMin, 'stands' => array_filter($stands, $isThere) !== []];
        }
        $hears = array_values(array_filter($answers, static fn (Contents $one): bool => isset($one->map->signals[$key->signal])))[0] ?? null;
        if ($hears === null) {
            return $told + ['signal' => $key->signal, 'trouble' => sprintf('No triggers that were handed over to "%s" know the signal "%s".', $display->about()->name, $key->signal)];
        }

        return $told + ['signal' => $key->signal, 'map' => $hears->map->id] + (($rows = $this->rows($hears, $key)) === null ? [] : ['rows' => $rows]);
    }

    /**
     * @return ?list<array{says: string, row: array<string, mixed>}> what may be carried to the display; null where the signal brings nothing
     * @throws Refused
     */
    private function rows(Contents $hears, PanelKey $key): ?array
    {
        $rows = $hears->rows($key->signal ?? '');
        $isCarried = array_filter($hears->map->transitions, static fn ($one): bool => $one->on === $key->signal && $one->carries) !== [];
        if ($rows === null || !$isCarried) {
            return null;
        }
        $says = static function (array $row) use ($key): string {
            $fields = $key->fields === [] ? array_slice($row, 0, self::SOME_FIELDS) : array_map(static fn (string $one): mixed => $row[$one] ?? '', $key->fields);

            return implode(' · ', array_map(static fn (mixed $one): string => is_scalar($one) ? (string) $one : '', $fields));
        };

        return array_map(static fn (array $row): array => ['says' => $says($row), 'row' => $row], array_slice($rows->at((int) $this->clock->now()->format('Uv'))->told(), 0, self::MOST_ROWS));
    }

    /**
     * @param ?Styles $styles of the display; null where it is not within reach
     * @return array{ground: ?string, ink: ?string} null for those of any key
     */
    private static function colours(PanelKey $key, ?Styles $styles): array
    {
        $colour = match (true) {
            $key->colour === null => null,
            str_starts_with($key->colour, '@') => $styles?->colour(substr($key->colour, 1)),
            default => Colour::of($key->colour),
        };
        if ($colour === null) {
            return ['ground' => null, 'ink' => null];
        }
        $ground = $colour->over(Colour::of('#ffffff'));
        [$dark, $light] = array_map(Colour::of(...), self::INKS);

        return ['ground' => $ground->hex, 'ink' => $ground->contrast($dark) >= $ground->contrast($light) ? $dark->hex : $light->hex];
    }

    /**
     * @param list<Contents> $answers
     * @param array{list<array<string, mixed>>, ?string} $stands and what that was put on
     * @param ?array{id: string, signal: string, said_at: string, said_by: ?string} $asked
     * @return array<string, mixed>
     */
    private function display(SurveyedDisplay $display, array $answers, array $stands, ?array $asked): array
    {
        $release = $this->releases->on($display);
        $due = $release === null ? [] : array_values(array_filter([$release->sha256, $release->wholeSha256]));
        $now = 1000 * $this->clock->now()->getTimestamp();
        [$statuses, $shown, $took] = [[], [], []];
        foreach ($this->connection->fetchAllAssociative('SELECT * FROM player WHERE display_id = ? AND revoked_at IS NULL ORDER BY bound_at, id', [$display->id]) as $row) {
            $statuses[] = DisplayStatus::of(Player::callOf($row), $due, $now);
            foreach (Player::senses($row) as $senses) {
                array_push($shown, ...$senses['answers']);
                array_push($took, ...$senses['took']);
            }
        }
        $status = DisplayStatus::together($statuses);
        $names = array_column(array_map(static fn (Contents $one): array => [$one->map->id, $one->map->name], $answers), 1, 0);

        return [
            'id' => $display->id,
            'name' => $display->about()->name,
            'raster' => $display->display()->raster()->toArray(),
            'plays' => $stands[1] ?? $release?->name,
            'status' => $status->value,
            'says' => $status->sentence($release?->number),
            'release' => $release === null ? null : ['number' => $release->number, 'url' => '/' . $release->file],
            'stands' => $stands[0],
            'answers' => array_values(array_filter($shown, static fn (array $one): bool => isset($names[$one['map']]))),
            'maps' => (object) $names,
            'asked' => $asked === null ? null : $asked + ['taken' => in_array($asked['id'], $took, true)],
        ];
    }
}
