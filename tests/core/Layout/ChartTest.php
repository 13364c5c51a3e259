<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/**
 * Charts: every rectangle to the px (formats-data.md, Charts).
 *
 * @phpstan-import-type Doc from Make
 */
final class ChartTest extends TestCase
{
    private const ROWS = [['port' => 'Tolm', 'waves' => 1.5], ['port' => 'Vennick', 'waves' => 3.7], ['port' => 'Skerry', 'waves' => -1], ['port' => 'Pellan', 'waves' => null]];

    /** A column lies between the base, 0 held to the axis, and its value: its height is their distance over the axis, of the plot's, to the px. */
    public function testColumnsAreAsHighAsTheirValuesSay(): void
    {
        $things = self::shown(self::chart());
        $plot = self::parts($things, 'plot')[0]['rect'];
        self::assertSame(['-1', '0', '1', '2', '3', '4'], array_column(self::parts($things, 'tick'), 'text'));
        $px = static fn (float $distance): int => (int) round($distance / 5 * $plot['height']);
        $zero = $plot['y'] + $plot['height'] - $px(1);
        $columns = array_map(static fn (array $one): array => [$one['row'], $one['rect']['y'], $one['rect']['y'] + $one['rect']['height']], self::parts($things, 'column'));
        self::assertSame([[0, $plot['y'] + $plot['height'] - $px(2.5), $zero], [1, $plot['y'] + $plot['height'] - $px(4.7), $zero], [2, $zero, $plot['y'] + $plot['height']]], $columns);
        self::assertSame(['Tolm', 'Vennick', 'Skerry', 'Pellan'], array_column(self::parts($things, 'label'), 'text'));
        foreach ($things as $thing) {
            self::assertSame('chart', $thing['element']);
            self::assertGreaterThanOrEqual(10, $thing['rect']['x']);
            self::assertLessThanOrEqual(610, $thing['rect']['x'] + $thing['rect']['width']);
        }
    }

    public function testBarsGoAcrossALineGoesThroughItsPointsAndAGaugeTellsTheFirst(): void
    {
        $bars = self::shown(['type' => 'bars', 'axis' => ['from' => 0, 'to' => 4]] + self::chart());
        $plot = self::parts($bars, 'plot')[0]['rect'];
        self::assertSame([[0, $plot['x'], (int) round(1.5 / 4 * $plot['width'])], [1, $plot['x'], (int) round(3.7 / 4 * $plot['width'])]], array_map(
            static fn (array $one): array => [$one['row'], $one['rect']['x'], $one['rect']['width']],
            self::parts($bars, 'column'),
        ));
        $line = self::shown(['type' => 'line'] + self::chart());
        self::assertSame([0, 1, 2], array_column(self::parts($line, 'point'), 'row'));
        self::assertSame(['line', 3], [self::parts($line, 'line')[0]['kind'], count(self::parts($line, 'line')[0]['line']['points'])]);
        $gauge = self::shown(['type' => 'gauge', 'axis' => ['from' => 0, 'to' => 3, 'unit' => 'm']] + self::chart());
        self::assertSame(['1.5 m', 'Tolm'], array_column(self::parts($gauge, 'label'), 'text'));
        // Half of 240 degrees: it ends at the top.
        $arc = self::parts($gauge, 'column')[0]['line'];
        self::assertEqualsWithDelta([300.0, $arc['width_px'] / 2], $arc['points'][count($arc['points']) - 1], 0.1);
    }

    public function testItChangesTheMomentItsRowsDoAndIsDrawnWithoutAny(): void
    {
        $rows = [['port' => 'Tolm', 'waves' => 1, 'until' => '1970-01-01T00:00:05Z'], ['port' => 'Vennick', 'waves' => 2, 'until' => '1970-01-01T00:00:09Z']];
        $chart = ['rows' => ['source' => 's', 'where' => [['field' => 'until', 'is' => 'upcoming']]]] + self::chart();
        $labels = static fn (int $at): array => array_column(self::parts(self::shown($chart, $at, $rows), 'label'), 'text');
        self::assertSame([['Tolm', 'Vennick'], ['Vennick'], []], [$labels(4999), $labels(5000), $labels(9000)]);
        self::assertCount(1, self::parts(self::shown($chart, 9000, $rows), 'plot'));
    }

    public function testValuesBeyondAStatedAxisAreHeldAndFound(): void
    {
        $chart = ['axis' => ['from' => 0, 'to' => 2]] + self::chart();
        $things = self::shown($chart);
        $plot = self::parts($things, 'plot')[0]['rect'];
        self::assertSame([$plot['y'], $plot['height']], [self::parts($things, 'column')[1]['rect']['y'], self::parts($things, 'column')[1]['rect']['height']]);
        $found = self::found($chart);
        self::assertSame(
            ['data.missing' => ['names' => 1], 'chart.range' => ['count' => 2, 'row' => 1]],
            ['data.missing' => ['names' => count($found['data.missing']->measure['arguments'])], 'chart.range' => $found['chart.range']->measure],
        );
        self::assertSame(['axis' => null], $found['chart.range']->cures[0]->fields);
        self::assertArrayNotHasKey('chart.range', self::found(self::chart()));
    }

    /** @param array<string, mixed> $change */
    #[DataProvider('wrong')]
    public function testWhatCannotBeReadIsRefused(array $change, string $path): void
    {
        try {
            self::shown($change + self::chart());
            self::fail('refused');
        } catch (Refused $e) {
            self::assertSame("/elements/0$path", $e->path);
        }
    }

    /** @return iterable<array{array<string, mixed>, string}> */
    public static function wrong(): iterable
    {
        yield [['type' => 'pie'], '/type'];
        yield [['axis' => ['from' => 2, 'to' => 2]], '/axis/to'];
        yield [['axis' => ['ticks' => 0]], '/axis/ticks'];
        yield [['rows' => ['source' => 's', 'fields' => ['port' => '$.port']]], '/value'];
        yield [['rows' => ['source' => 's', 'fields' => ['waves' => '$.waves']]], '/category'];
    }

    /** @return Doc */
    private static function chart(): array
    {
        return [
            'id' => 'chart', 'kind' => 'chart', 'rect' => ['x' => 10, 'y' => 20, 'width' => 600, 'height' => 400], 'rows' => ['source' => 's'], 'type' => 'columns',
            'category' => 'port', 'value' => 'waves', 'style' => ['family' => Typewriter::FAMILY, 'size_px' => 20, 'color' => '#ffffff'], 'colours' => ['#f0c674'],
        ];
    }

    /**
     * @param Doc $chart
     * @param list<array<string, mixed>> $rows
     * @return list<array<string, mixed>>
     */
    private static function shown(array $chart, int $at = 0, array $rows = self::ROWS): array
    {
        $surroundings = self::surroundings(Make::fed($rows));

        return Make::shownAt(Make::composed(Make::layout([$chart]), null, $surroundings), 0, $surroundings)->at($at)->toArray()['things'];
    }

    /**
     * @param Doc $chart
     * @return array<string, Finding> by code
     */
    private static function found(array $chart): array
    {
        $surroundings = self::surroundings(Make::fed(self::ROWS));

        return array_column(array_map(static fn (Finding $one): array => [$one->code, $one], Checks::run(Make::composed(Make::layout([$chart]), null, $surroundings), $surroundings)->all), 1, 0);
    }

    /**
     * @param list<array<string, mixed>> $things
     * @return list<array<string, mixed>>
     */
    private static function parts(array $things, string $part): array
    {
        return array_values(array_filter($things, static fn (array $thing): bool => $thing['part'] === $part));
    }

    private static function surroundings(Feeds $feeds): Surroundings
    {
        return (new Surroundings('UTC', new Typewriter()))->fed($feeds);
    }
}
