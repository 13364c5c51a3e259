<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Psr\Clock\ClockInterface;
use Psr\EventDispatcher\EventDispatcherInterface;
use UpperPane\App\Account\Who;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\TableRefused;

/**
 * What a table of surveys would change, and changing it: each row by itself, so that good ones come in and bad ones are listed.
 *
 * @phpstan-type Change array{line: int, id: ?string, name: string, place: Place, document: array<string, mixed>, changes: list<string>, known: ?SurveyedDisplay}
 */
final readonly class BulkSurvey
{
    /** Fields of the display, and what a unit of the column is in the document's. */
    private const OF_PANEL = ['width_px' => ['native', 'width'], 'height_px' => ['native', 'height'], 'width_mm' => ['active_mm', 'width'], 'height_mm' => ['active_mm', 'height']];
    private const OF_VIEWING = ['nearest_m' => 'nearest_mm', 'farthest_m' => 'farthest_mm', 'centre_height_m' => 'centre_height_mm', 'eye_height_m' => 'eye_height_mm'];

    public function __construct(
        private Displays $displays,
        private Places $places,
        private Transaction $transaction,
        private AddDisplay $add,
        private Record $record,
        private EventDispatcherInterface $events,
        private Who $who,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @return array{changes: list<Change>, bad: list<array{line: int, reason: string}>, unchanged: int}
     */
    public function preview(SurveyTable $table): array
    {
        $places = [];
        foreach ($this->places->all() as $place) {
            foreach ([$place->id, $place->name, implode(' › ', $place->way()), implode(' > ', $place->way()), implode('/', $place->way())] as $called) {
                $places[mb_strtolower($called)] = $place;
            }
        }
        [$byId, $byName] = [[], []];
        foreach ($this->displays->all() as $display) {
            $byId[$display->id] = $display;
            $byName[$display->place->id . "\n" . mb_strtolower(is_string($display->summary['name'] ?? null) ? $display->summary['name'] : '')] = $display;
        }
        [$changes, $bad, $unchanged, $seen] = [[], $table->bad, 0, []];
        foreach ($table->rows as ['line' => $line, 'cells' => $cells]) {
            try {
                $change = $this->row($table, $line, $cells, $places, $byId, $byName);
                $key = $change['place']->id . "\n" . mb_strtolower($change['name']);
                if (isset($seen[$key])) {
                    throw TableRefused::because(Reason::CsvTwice, sprintf('"%s" stands in line %d already.', $change['name'], $seen[$key]), '');
                }
                $seen[$key] = $line;
                if ($change['changes'] === []) {
                    $unchanged++;
                } else {
                    $changes[] = $change;
                }
            } catch (Refused $e) {
                $bad[] = ['line' => $line, 'reason' => $e->getMessage()];
            }
        }
        usort($bad, static fn (array $a, array $b): int => $a['line'] <=> $b['line']);

        return ['changes' => $changes, 'bad' => $bad, 'unchanged' => $unchanged];
    }

    /** @param list<Change> $changes */
    public function apply(array $changes): void
    {
        $this->transaction->of(function () use ($changes): void {
            $added = 0;
            foreach ($changes as $change) {
                $known = $change['known'] === null ? null : $this->displays->same($change['known']);
                if ($known === null) {
                    $this->add->of($change['place'], $change['document'], $added++);
                    continue;
                }
                $known->place = $this->places->same($change['place']);
                $known->take($change['document'], $this->clock->now(), $this->who->login());
                $this->displays->keep($known, 'from a table');
                $this->record->note(Did::Saved, $known->about(), ['revision' => $known->revision, 'note' => 'from a table: ' . mb_strimwidth(implode('; ', $change['changes']), 0, 300, '...')]);
            }
            $known = array_filter(array_column($changes, 'known'));
            $this->events->dispatch(new DisplaysChanged(array_map(static fn (SurveyedDisplay $one): string => $one->id, array_values($known))));
        });
    }

    /**
     * @param array<string, string> $cells
     * @param array<string, Place> $places
     * @param array<string, SurveyedDisplay> $byId
     * @param array<string, SurveyedDisplay> $byName
     * @return Change
     * @throws DocumentRefused
     */
    private function row(SurveyTable $table, int $line, array $cells, array $places, array $byId, array $byName): array
    {
        $cells = array_filter($cells, static fn (string $cell): bool => $cell !== '');
        $place = isset($cells['place'])
            ? $places[mb_strtolower($cells['place'])] ?? throw DocumentRefused::because(Reason::RefUnknown, sprintf('place is "%s", no place of the estate.', $cells['place']), '/place')
            : null;
        $known = isset($cells['id']) ? $byId[$cells['id']] ?? null : $byName[$place?->id . "\n" . mb_strtolower($cells['name'] ?? '')] ?? null;
        $place ??= $known->place ?? throw DocumentRefused::because(Reason::FieldMissing, 'place is missing: it says where a new display hangs.', '/place');
        $document = $this->document($table, $cells, $known->document ?? self::blank());
        if ($known === null && !isset($cells['timezone']) && ($zone = $place->zone()) !== null) {
            $document['timezone'] = $zone;
        }
        $document = ['format' => Display::FORMAT] + (isset($cells['id']) || $known !== null ? ['id' => $known->id ?? $cells['id']] : []) + $document;
        $display = Display::fromArray(['id' => 'new'] + $document);

        return [
            'line' => $line,
            'id' => $known?->id,
            'name' => $display->name,
            'place' => $place,
            'document' => $document,
            'changes' => $known === null ? ['new, ' . $display->raster() . ' px'] : self::differences($known, $document, $place),
            'known' => $known,
        ];
    }

    /**
     * @param array<string, string> $cells
     * @param array<mixed> $document
     * @return array<string, mixed>
     * @throws DocumentRefused
     */
    private function document(SurveyTable $table, array $cells, array $document): array
    {
        foreach (['name', 'timezone', 'technology'] as $field) {
            $document = isset($cells[$field]) ? [$field => $cells[$field]] + $document : $document;
        }
        if (isset($cells['refresh_hz'])) {
            $document['refresh_hz'] = $table->figure('refresh_hz', $cells['refresh_hz']);
        }
        foreach (array_intersect_key(self::OF_VIEWING, $cells) as $column => $field) {
            $document['viewing'] = [$field => round($table->figure($column, $cells[$column]) * 1000, 1)] + (array) ($document['viewing'] ?? []);
        }
        $panels = [];
        foreach ((array) ($document['panels'] ?? []) as $panel) {
            $panel = (array) $panel;
            foreach (array_intersect_key(self::OF_PANEL, $cells) as $column => [$of, $side]) {
                $panel[$of] = [$side => $table->figure($column, $cells[$column])] + (array) ($panel[$of] ?? []);
            }
            if (isset($cells['rotation'])) {
                $panel['rotation'] = $table->figure('rotation', $cells['rotation']);
            }
            if (isset($cells['bezel_mm'])) {
                $panel['bezel_mm'] = array_fill_keys(['left', 'top', 'right', 'bottom'], $table->figure('bezel_mm', $cells['bezel_mm']));
            }
            $panels[] = $panel;
        }
        $document['panels'] = $panels;
        if (isset($cells['link'])) {
            $document['players'] ??= [['id' => 'a', 'outputs' => [['number' => 1, 'link' => $cells['link']]]]];
        }

        /** @var array<string, mixed> $document */
        return $document;
    }

    /** @return array<string, mixed> what is usual where a table says nothing; raster and mm have to be said */
    private static function blank(): array
    {
        return ['timezone' => 'UTC', 'viewing' => [], 'technology' => 'lcd', 'panels' => [[
            'id' => 'p1', 'column' => 0, 'row' => 0, 'native' => [], 'active_mm' => [], 'bezel_mm' => ['left' => 10, 'top' => 10, 'right' => 10, 'bottom' => 10], 'rotation' => 0,
        ]]];
    }

    /**
     * @param array<string, mixed> $document
     * @return list<string> in words
     */
    private static function differences(SurveyedDisplay $known, array $document, Place $place): array
    {
        $old = $known->asSurveyed();
        $new = Display::fromArray($document);
        $metres = static fn (float $mm): string => round($mm / 1000, 2) . ' m';
        $told = [];
        foreach (
            [
                'name' => [$old->name, $new->name],
                'place' => [$known->place->name, $place->name],
                'time zone' => [$old->timezone, $new->timezone],
                'raster' => [$old->raster() . ' px', $new->raster() . ' px'],
                'size' => [round($old->active()->width, 1) . ' x ' . round($old->active()->height, 1) . ' mm', round($new->active()->width, 1) . ' x ' . round($new->active()->height, 1) . ' mm'],
                'nearest' => [$metres($old->viewing->nearestMm), $metres($new->viewing->nearestMm)],
                'farthest' => [$metres($old->viewing->farthestMm), $metres($new->viewing->farthestMm)],
                'middle' => [$metres($old->viewing->centreHeightMm), $metres($new->viewing->centreHeightMm)],
                'eyes' => [$metres($old->viewing->eyeHeightMm), $metres($new->viewing->eyeHeightMm)],
                'technology' => [$old->led ? 'led' : 'lcd', $new->led ? 'led' : 'lcd'],
                'refresh' => [$old->refreshHz . ' Hz', $new->refreshHz . ' Hz'],
                'turned' => [$old->wall->panels[0]->panel->rotation->value . '°', $new->wall->panels[0]->panel->rotation->value . '°'],
                'bezels' => [implode(' ', $old->wall->panels[0]->panel->bezel->toArray()) . ' mm', implode(' ', $new->wall->panels[0]->panel->bezel->toArray()) . ' mm'],
            ] as $what => [$before, $after]
        ) {
            if ($before !== $after) {
                $told[] = "$what: $before → $after";
            }
        }

        return $told;
    }
}
