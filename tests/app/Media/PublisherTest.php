<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Media;

use UpperPane\App\Media\Publisher;
use UpperPane\App\Text\HouseFaces;
use UpperPane\Tests\App\ApiTestCase;

final class PublisherTest extends ApiTestCase
{
    public function testContentLiesUnderItsHashAndTwiceTheSameIsOneFile(): void
    {
        $publisher = static::getContainer()->get(Publisher::class);
        [$path, $sha256] = $publisher->content('releases', '{"a":1}', 'json');

        self::assertSame('releases/' . substr($sha256, 0, 2) . "/$sha256.json", $path);
        self::assertSame(hash('sha256', '{"a":1}'), $sha256);
        self::assertSame([$path, $sha256], $publisher->content('releases', '{"a":1}', 'json'));
        self::assertNotSame($path, $publisher->content('releases', '{"a":2}', 'json')[0]);
        self::assertSame('{"a":1}', $this->published()->read($path));
    }

    public function testAFileThatIsReplacedLeavesNoHalfOfItselfBehind(): void
    {
        $publisher = static::getContainer()->get(Publisher::class);
        $publisher->replace('pointers/test.json', 'one');
        $publisher->replace('pointers/test.json', 'two');

        self::assertSame('two', $this->published()->read('pointers/test.json'));
        $left = array_filter($this->published()->listContents('pointers')->toArray(), static fn ($file): bool => str_contains($file->path(), '.part'));
        self::assertSame([], $left);
    }

    public function testTheFacesOfTheHouseArePublishedWholeAndNamed(): void
    {
        $faces = static::getContainer()->get(HouseFaces::class);
        self::assertSame(6, $faces->publish());

        self::assertSame(['Barlow Condensed', 'Inter', 'Zilla Slab'], array_values(array_unique((function (array $all): array {
            sort($all);

            return $all;
        })(array_column($faces->all(), 'family')))));
        foreach ($faces->all() as $face) {
            $bytes = $this->published()->read(ltrim($face['url'], '/'));
            self::assertSame([$face['sha256'], $face['bytes']], [hash('sha256', $bytes), strlen($bytes)]);
            self::assertSame("\x00\x01\x00\x00", substr($bytes, 0, 4), 'a TrueType file (ISO/IEC 14496-22, 4.3)');
        }
        $this->signIn();
        self::assertCount(6, $this->ask('GET', '/api/faces')[1]['faces']);
    }

    public function testAReleaseCarriesTheFacesOfItsWords(): void
    {
        static::getContainer()->get(HouseFaces::class)->publish();
        $this->signIn();
        $document = $this->whole($this->media());
        $document['elements'][] = [
            'id' => 'head', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 90, 'height' => 90],
            'text' => 'Hello', 'style' => ['size_px' => 40, 'family' => 'Zilla Slab'],
        ];
        $layout = $this->made($document);
        $release = $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout['id']], 'displays' => ['wide']])['releases'][0];
        $faces = json_decode($this->published()->read(ltrim($release['url'], '/')), true)['faces'];

        self::assertSame([['Zilla Slab', 400], ['Zilla Slab', 600]], array_map(static fn (array $f): array => [$f['family'], $f['weight']], $faces));
    }

    public function testMediaThatNobodyUsesCanBeDeletedAndAskedForOneByOne(): void
    {
        $this->signIn();
        $asset = $this->media('spare', 640, 480, 5000);
        self::assertSame(['spare', 'film', 640, 480, 5000], array_values(array_intersect_key(
            $this->ask('GET', '/api/media/spare')[1],
            array_flip(['id', 'kind', 'width', 'height', 'length_ms']),
        )));
        self::assertSame(204, $this->ask('DELETE', '/api/media/spare')[0]);
        self::assertSame(404, $this->ask('GET', '/api/media/spare')[0]);
        self::assertTrue($this->published()->fileExists((string) $asset->file), 'what is handed over keeps its file');
    }

    public function testAnUploadWithoutAFileIsRefused(): void
    {
        $this->signIn();
        [$status, $answer] = $this->ask('POST', '/api/media');

        self::assertSame([415, 'type.not-form'], [$status, $answer['error']['code']]);
    }
}
