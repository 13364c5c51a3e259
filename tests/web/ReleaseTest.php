<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Tests\Core\Make;

/** A manifest and its sheets as the browser puts them together (web/src/pane/release.ts), held against the core. */
final class ReleaseTest extends TestCase
{
    public function testTheSheetsArePutTogetherAsTheCoreDoes(): void
    {
        $random = Make::random(31);
        for ($round = 0; $round < Make::rounds(4); $round++) {
            $release = Make::release(Display::fromArray(Make::display()), Make::bookedAround($random, true), [], [], 1_792_713_600_000, 1_792_800_000_000);
            $sheets = array_map(static fn ($sheet): mixed => json_decode($sheet->json()), $release->sheets);
            $together = $this->together(json_decode($release->json(), true)['planes'], $sheets, 0);
            $whole = json_decode((string) json_encode($release->whole()['run_sheet']), true);
            self::assertEquals(array_diff_key($whole, ['format' => 1]), $together['sheet'], "round $round");
            self::assertNull($together['until'], 'nothing in its planes begins or ends');
        }
    }

    /** What changes by itself is exchanged without a new release: what lies above for a time, and what is included by name. */
    public function testPlanesHoldForTheirTimeAndDataStandsInThePlaceOfAnInclude(): void
    {
        $part = static fn (string $id): array => ['part' => ['id' => $id, 'element' => $id, 'kind' => 'shape']];
        $sheets = [
            'base' => ['canvas' => ['width' => 9, 'height' => 9], 'background' => '#000000', 'anchor_ms' => 5, 'layers' => [['include' => 'board', 'id' => 'x'], $part('foot')],
                'includes' => ['board' => ['url' => '/b', 'sha256' => 'board', 'bytes' => 1]]],
            'board' => ['layers' => [$part('row')]],
            'rows' => ['layers' => [$part('newer')]],
            'notice' => ['layers' => [$part('notice')]],
        ];
        $plane = static fn (string $sheet, ?string $from = null, ?string $until = null): array => [
            'sheet' => ['url' => "/$sheet", 'sha256' => $sheet, 'bytes' => 1],
            'from' => $from,
            'until' => $until,
        ];
        $planes = [
            'base' => $plane('base'),
            'above' => [['id' => 'n'] + $plane('notice', '2026-06-01T10:00:00Z', '2026-06-01T11:00:00Z')],
            'data' => [['include' => 'board'] + $plane('rows', '2026-06-01T10:30:00Z')],
        ];
        $shown = function (string $at) use ($planes, $sheets): array {
            $now = $this->together($planes, $sheets, 1000 * (int) strtotime($at));

            return [array_column(array_column($now['sheet']['layers'], 'part'), 'id'), $now['until'] === null ? null : gmdate('H:i', intdiv($now['until'], 1000))];
        };
        self::assertSame([['x/row', 'foot'], '10:00'], $shown('2026-06-01T09:00:00Z'));
        self::assertSame([['x/row', 'foot', 'notice'], '10:30'], $shown('2026-06-01T10:00:00Z'));
        self::assertSame([['x/newer', 'foot', 'notice'], '11:00'], $shown('2026-06-01T10:30:00Z'));
        self::assertSame([['x/newer', 'foot'], null], $shown('2026-06-01T11:00:00Z'));
    }

    /**
     * @param array<string, mixed> $planes
     * @param array<string, mixed> $sheets by hash
     * @return array{sheet: array<string, mixed>, until: ?int}
     */
    private function together(array $planes, array $sheets, int $atMs): array
    {
        return (new Module('pane/release.ts'))->call('together', $planes, $sheets, $atMs);
    }
}
