<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Handover;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Handover\Release;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;

final class ReleaseTest extends TestCase
{
    private const FILE = ['url' => '/files/a.png', 'sha256' => 'a', 'bytes' => 10, 'type' => 'image/png'];
    private const FACES = [
        ['family' => 'Inter', 'weight' => 400, 'url' => '/files/i.ttf', 'sha256' => 'i', 'bytes' => 1],
        ['family' => 'Zilla Slab', 'weight' => 400, 'url' => '/files/z.ttf', 'sha256' => 'z', 'bytes' => 1],
    ];

    public function testTheSameInputsGiveTheSameBytesInWhateverOrderTheFilesCome(): void
    {
        $make = static fn (array $files): Release => Make::release(Display::fromArray(Make::display()), Programme::endless(self::layout()), $files, self::FACES);
        $one = $make(['b' => self::FILE, 'a' => self::FILE]);
        $two = $make(['a' => self::FILE, 'b' => self::FILE, 'unused' => self::FILE]);

        self::assertSame($one->json(), $two->json());
        self::assertSame(hash('sha256', $one->json()), $one->hash());
    }

    public function testItCarriesJustTheMediaAndFacesThatAreUsed(): void
    {
        $files = ['a' => self::FILE, 'b' => self::FILE, 'c' => self::FILE];
        $release = Make::release(Display::fromArray(Make::display(1920, 1080, 90)), Programme::endless(self::layout()), $files, self::FACES)->toArray();

        self::assertSame(['a', 'b'], array_column($release['media'], 'id'));
        self::assertSame(['Inter'], array_column($release['faces'], 'family'));
        self::assertSame(['width' => 1080, 'height' => 1920], $release['display']['raster']);
        [$output] = $release['display']['outputs'];
        self::assertSame([90, ['width' => 1920, 'height' => 1080]], [$output['rotation'], $output['raster']], 'the output sends the panel unturned');
        self::assertSame('crossed', $release['match']['verdict']);
    }

    public function testAWallHasOneRunSheetAndASourceForEachOutput(): void
    {
        $wall = Display::fromArray(Make::wall(2, 1, 90, players: [['id' => 'a'], ['id' => 'b']]));
        $release = Make::release($wall, Programme::endless(self::layout()), ['a' => self::FILE, 'b' => self::FILE], [])->toArray();
        self::assertSame(
            [['a', 1, ['A1'], 90, ['x' => 0, 'y' => 0, 'width' => 1080, 'height' => 1920]], ['a', 2, ['A2'], 90, ['x' => 1084, 'y' => 0, 'width' => 1080, 'height' => 1920]]],
            array_map(static fn (array $out): array => [$out['player'], $out['output'], $out['panels'], $out['rotation'], $out['source']], $release['display']['outputs']),
        );

        $processor = ['player' => 'a', 'output' => 1, 'raster' => ['width' => 3840, 'height' => 2160]];
        $processed = Make::release(Display::fromArray(Make::wall(processor: $processor)), Programme::endless(self::layout()), ['a' => self::FILE, 'b' => self::FILE], [])->toArray();
        self::assertSame([[6, ['width' => 5768, 'height' => 2164]]], array_map(
            static fn (array $out): array => [count($out['panels']), array_slice($out['source'], 2)],
            $processed['display']['outputs'],
        ));
    }

    public function testAMediaWithoutAFileIsNotReleased(): void
    {
        $this->expectExceptionMessage('The media "b.png" (b) has no file.');
        Make::release(Display::fromArray(Make::display()), Programme::endless(self::layout()), ['a' => self::FILE], []);
    }

    /** The property: whatever is booked, its sheets in one piece are the run sheet of the programme, and each thing has a name of its own. */
    public function testTheSheetsTogetherAreTheRunSheet(): void
    {
        $random = Make::random(77);
        $from = Instant::parse('2026-10-23T00:00:00Z')->ms;
        for ($round = 0; $round < Make::rounds(8); $round++) {
            $programme = Make::bookedAround($random, $round % 3 !== 0);
            $release = self::handed($programme, $from, $from + 86_400_000);
            $run = $release->whole()['run_sheet'];
            self::assertEquals(json_decode((string) json_encode(RunSheet::of($programme, new Surroundings(), $from, $from + 86_400_000)), true), json_decode((string) json_encode($run), true));
            self::assertSame(array_keys($release->sheets), array_column($release->toArray()['sheets'], 'sha256'));
            self::assertCount(count($programme->base->whole) + 1, $release->sheets, 'what is booked is a sheet of its own');
            foreach ($release->sheets as $hash => $sheet) {
                self::assertSame($hash, hash('sha256', $sheet->json()));
            }
            $ids = self::ids($run['layers']);
            self::assertSame($ids, array_unique($ids), 'no two things have one name');
        }
    }

    /** Another window of the same bookings exchanges the plan, and leaves all that is booked as it is. */
    public function testWhatIsBookedKeepsItsSheetWhenItIsPlannedAnew(): void
    {
        $booked = ['day' => [Make::picture('a')], 'eve' => [Make::picture('b')]];
        $bookings = [['id' => 'd', 'plays' => ['layout' => 'day'], 'rank' => 'everyday', 'start' => '2026-06-01T09:00:00', 'end' => '2026-06-01T17:00:00', 'rrule' => 'FREQ=DAILY']];
        $programme = Make::programme($booked, $bookings, ['layout' => 'eve']);
        $in = static fn (string $month): Release => self::handed($programme, Instant::parse("$month-01T00:00:00Z")->ms, Instant::parse("$month-20T00:00:00Z")->ms);
        [$june, $july] = [$in('2026-06'), $in('2026-07')];
        self::assertCount(2, array_intersect_key($june->sheets, $july->sheets));
        self::assertCount(3, $june->sheets);
        self::assertSame(Instant::parse('2026-06-20T00:00:00Z')->ms, $june->planned()?->untilMs);
    }

    public function testAlikeDisplaysShareARelease(): void
    {
        $programme = Programme::endless(self::layout());
        [$one, $two] = array_map(static fn (string $id): Release => Make::release(
            Display::fromArray(['id' => $id, 'name' => ucfirst($id)] + Make::display()),
            $programme,
            ['a' => self::FILE, 'b' => self::FILE],
            self::FACES,
        ), ['here', 'there']);
        self::assertSame($one->json(), $two->json());
        self::assertSame(['here', 'There'], [$one->whole()['display']['id'], $two->whole()['display']['name']]);
        self::assertNull($one->planned(), 'what plays for ever needs no plan');
    }

    public function testAListWhoseItemsHaveHoursIsPlanned(): void
    {
        $hours = ['valid' => ['hours' => [['08:00', '12:00']]]];
        $layout = Make::composed(Make::layout([Make::zone('main', 0, 0, 1920, 1080, [$hours + Make::picture('a')])]));
        self::assertSame(92 * 86_400_000, self::handed(Programme::endless($layout), 0, 92 * 86_400_000)->planned()?->untilMs);
    }

    /** Its name is that of its item: it stays what it is when another is put before it. */
    public function testAThingKeepsItsNameWhereverItStandsInItsList(): void
    {
        $layout = static fn (string ...$items): Composed => Make::composed(Make::layout([Make::zone('main', 0, 0, 9, 9, array_map(Make::picture(...), array_values($items)))]));
        $ids = static fn (string ...$items): array => self::ids(Make::runSheet($layout(...$items))['layers']);
        self::assertSame(['main', 'main:b/main'], $ids('b'));
        self::assertSame(['main', 'main:a/main', 'main:b/main'], $ids('a', 'b'));
    }

    /**
     * @param list<array<string, mixed>> $layers
     * @return list<string>
     */
    private static function ids(array $layers): array
    {
        $ids = [];
        foreach ($layers as $layer) {
            $ids[] = $layer['part']['id'] ?? $layer['id'];
            array_push($ids, ...array_merge(...array_map(self::ids(...), $layer['scenes'] ?? [])));
        }

        return $ids;
    }

    private static function handed(Programme $programme, int $fromMs, int $toMs): Release
    {
        return Make::release(Display::fromArray(Make::display()), $programme, array_fill_keys(['a', 'b'], self::FILE), [], $fromMs, $toMs);
    }

    private static function layout(): Composed
    {
        $picture = static fn (string $id): array => ['id' => "i$id", 'media' => ['id' => $id, 'name' => "$id.png", 'width' => 9, 'height' => 9], 'duration_ms' => 1000];
        $nested = Make::layout([
            Make::zone('z', 0, 0, 10, 10, [$picture('b'), ['enabled' => false] + $picture('c')]),
            ['id' => 't', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'text' => 'x', 'style' => ['size_px' => 9, 'family' => 'Inter']],
        ], 10, 10, 'nested');

        return Make::composed(
            Make::layout([Make::zone('main', 0, 0, 1920, 1080, [$picture('a'), ['id' => 'n', 'layout' => ['ref' => 'nested'], 'duration_ms' => 500]])]),
            Library::of([$nested]),
        );
    }
}
