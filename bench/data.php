<?php

declare(strict_types=1);

// Required by run.php: data read into trees, and rows chosen of them.

namespace UpperPane\Bench;

use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Data\Snapshot;
use UpperPane\Core\Data\Tree\ReadOptions;
use UpperPane\Core\Data\Tree\Trees;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Units\WallClock;

function benchData(float $hash): void
{
    $sailings = array_map(static fn (int $n): array => [
        'route' => ['name' => 'Port ' . $n * 7919 % 5000], 'status' => $n % 9 === 0 ? 'cancelled' : 'on time', 'departs' => gmdate('Y-m-d\TH:i', 1_780_000_000 + 60 * $n), 'wind' => $n % 40 / 3,
    ], range(1, 5_000));
    $json = (string) json_encode(['sailings' => $sailings]);
    $read = seconds(static fn (): mixed => Trees::read($json, ReadOptions::of()), 5);
    say('a JSON of 5,000 rows read', sprintf('%.0f ms, %s x baseline', 1000 * $read, number_format($read / $hash)), '');
    $tree = Trees::read($json, ReadOptions::of());
    $rows = Rows::fromNode(Node::root(['source' => 's', 'path' => '$.sailings[?@.route.name]', 'fields' => [
        'to' => '$.route.name', 'status' => '$.status', 'departs' => ['of' => '$.departs', 'type' => 'local', 'zone' => 'Europe/Lisbon'],
        'wind' => ['of' => '$.wind', 'type' => 'number', 'unit' => ['m/s', 'kn'], 'decimals' => 0],
    ], 'where' => [
        ['field' => 'status', 'is' => 'differs', 'value' => 'cancelled'], ['field' => 'departs', 'is' => 'upcoming', 'to_min' => 100_000],
    ], 'sort' => [['by' => 'to'], ['by' => 'departs']]]));
    $clock = WallClock::in('UTC');
    $chosen = seconds(static fn (): mixed => $rows->of($tree, $clock)->changesAfter(1_780_000_000_000), 5);
    say('its rows chosen, filtered, sorted, and when they change', sprintf('%.0f ms, %s x baseline', 1000 * $chosen, number_format($chosen / $hash)), 'under 100 ms');
    unset($tree);
    $csv = "number,name,date,share,remark\n" . implode('', array_map(static fn (int $n): string => "$n,name $n,2026-06-01," . $n / 7 . ",\"x, y\"\n", range(1, 100_000)));
    $some = Rows::fromNode(Node::root(['source' => 's', 'fields' => ['number' => ['of' => '$.number', 'type' => 'number'], 'name' => '$.name'],
        'where' => [['field' => 'number', 'is' => 'at_least', 'value' => 100]], 'sort' => [['by' => 'name']]]));
    memory_reset_peak_usage();
    $whole = seconds(static fn (): mixed => $some->of(Trees::read($csv, ReadOptions::of()), $clock)->at(0), 1);
    say('a CSV of 100,000 rows read, chosen and sorted', sprintf('%.1f s, %.0f MB, %s x baseline', $whole, memory_get_peak_usage() / 1e6, number_format($whole / $hash)), 'under 2 s, 256 MB');
}

/** A board of many rows, paged and checked as the composer asks for it while a hand holds a handle. */
function benchBoard(float $hash, FaceMetrics $faces): void
{
    $tree = array_map(static fn (int $n): \stdClass => (object) [
        'to' => 'Port ' . $n * 7919 % 5000, 'status' => $n % 9 === 0 ? 'cancelled' : 'on time', 'departs' => gmdate('Y-m-d\TH:i:s\Z', 1_780_000_000 + 60 * $n), 'berth' => $n % 6,
    ], range(1, 10_000));
    $told = static fn (string $id, string $text, int $x): array => [
        'id' => $id, 'kind' => 'text', 'message' => true, 'text' => $text, 'rect' => ['x' => $x, 'y' => 0, 'width' => 480, 'height' => 120], 'style' => ['size_px' => 48],
    ];
    $layout = Layout::fromArray(['format' => Layout::FORMAT, 'id' => 'l', 'name' => 'L', 'canvas' => ['width' => 1920, 'height' => 1080], 'elements' => [[
        'id' => 'b', 'kind' => 'board', 'rect' => ['x' => 0, 'y' => 0, 'width' => 1920, 'height' => 1080], 'rows' => ['source' => 's'],
        'pattern' => ['size' => ['width' => 1920, 'height' => 120], 'elements' => [$told('departs', '{departs, time, HH:mm}', 0), $told('to', '{to}', 480), $told('berth', 'Berth {berth}', 960)]],
    ]]]);
    $feeds = Feeds::of(['s' => [new Snapshot($tree)]]);
    $surroundings = (new Surroundings('Europe/Lisbon', $faces))->fed($feeds);
    // The rows are worked out once for each snapshot, whatever a hand does.
    Composer::compose($layout, null, $surroundings);
    $checked = seconds(static fn (): mixed => Checks::run(Composer::compose($layout, null, $surroundings), $surroundings), 3);
    say('a board of 10,000 rows paged and checked', sprintf('%.0f ms, %s x baseline', 1000 * $checked, number_format($checked / $hash)), 'under 200 ms');
}

/** A list of which one item plays row by row: boats of ten weeks, six of which are chosen at a time. */
function benchRowByRow(float $hash, FaceMetrics $faces): void
{
    $from = 1_780_000_000_000;
    $tree = array_map(static fn (int $n): \stdClass => (object) ['to' => "Boat $n", 'at' => gmdate('Y-m-d\TH:i:s\Z', intdiv($from, 1000) + 1200 * $n)], range(1, 5_000));
    $style = ['size_px' => 48];
    $words = ['id' => 'to', 'kind' => 'text', 'message' => true, 'text' => '{to}', 'rect' => ['x' => 0, 'y' => 0, 'width' => 900, 'height' => 100], 'style' => $style];
    $document = static fn (string $id, array $elements): array => ['format' => Layout::FORMAT, 'id' => $id, 'name' => $id, 'canvas' => ['width' => 1920, 'height' => 1080], 'elements' => $elements];
    $item = ['id' => 'boats', 'duration_ms' => 8_000, 'layout' => $document('boat', [$words])]
        + ['each' => ['source' => 's', 'where' => [['field' => 'at', 'is' => 'upcoming', 'to_min' => 120]]]];
    $zone = ['id' => 'z', 'kind' => 'zone', 'rect' => ['x' => 0, 'y' => 0, 'width' => 1920, 'height' => 1080], 'playlist' => ['items' => [$item]]];
    $surroundings = (new Surroundings('Europe/Lisbon', $faces))->at($from)->fed(Feeds::of(['s' => [new Snapshot($tree)]]));
    $layout = Layout::fromArray($document('l', [$zone]));
    $written = seconds(static function () use ($layout, $surroundings, $from): void {
        RunSheet::of(Programme::endless(Composer::compose($layout, null, $surroundings), 'Europe/Lisbon'), $surroundings, $from, $from + 92 * 86_400_000);
    }, 1);
    say('an item that plays 5,000 rows of ten weeks, 92 days written out', sprintf('%.1f s, %s x baseline', $written, number_format($written / $hash)), 'under 3 s');
}
