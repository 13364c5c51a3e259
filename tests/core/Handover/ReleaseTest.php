<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Handover;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Handover\Release;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Playback\Programme;
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
        $make = static fn (array $files): Release => Release::of(Display::fromArray(Make::display()), Programme::endless(self::layout()), $files, self::FACES);
        $one = $make(['b' => self::FILE, 'a' => self::FILE]);
        $two = $make(['a' => self::FILE, 'b' => self::FILE, 'unused' => self::FILE]);

        self::assertSame($one->json(), $two->json());
        self::assertSame(hash('sha256', $one->json()), $one->hash());
    }

    public function testItCarriesJustTheMediaAndFacesThatAreUsed(): void
    {
        $files = ['a' => self::FILE, 'b' => self::FILE, 'c' => self::FILE];
        $release = Release::of(Display::fromArray(Make::display(1920, 1080, 90)), Programme::endless(self::layout()), $files, self::FACES)->toArray();

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
        $release = Release::of($wall, Programme::endless(self::layout()), ['a' => self::FILE, 'b' => self::FILE], [])->toArray();
        self::assertSame(
            [['a', 1, ['A1'], 90, ['x' => 0, 'y' => 0, 'width' => 1080, 'height' => 1920]], ['a', 2, ['A2'], 90, ['x' => 1084, 'y' => 0, 'width' => 1080, 'height' => 1920]]],
            array_map(static fn (array $out): array => [$out['player'], $out['output'], $out['panels'], $out['rotation'], $out['source']], $release['display']['outputs']),
        );

        $processor = ['player' => 'a', 'output' => 1, 'raster' => ['width' => 3840, 'height' => 2160]];
        $processed = Release::of(Display::fromArray(Make::wall(processor: $processor)), Programme::endless(self::layout()), ['a' => self::FILE, 'b' => self::FILE], [])->toArray();
        self::assertSame([[6, ['width' => 5768, 'height' => 2164]]], array_map(
            static fn (array $out): array => [count($out['panels']), array_slice($out['source'], 2)],
            $processed['display']['outputs'],
        ));
    }

    public function testAMediaWithoutAFileIsNotReleased(): void
    {
        $this->expectExceptionMessage('The media "b.png" (b) has no file.');
        Release::of(Display::fromArray(Make::display()), Programme::endless(self::layout()), ['a' => self::FILE], []);
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
