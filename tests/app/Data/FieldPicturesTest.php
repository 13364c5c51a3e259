<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Data;

use Symfony\Component\HttpClient\MockHttpClient;
use Symfony\Component\HttpClient\Response\MockResponse;
use UpperPane\App\Data\Fetched;
use UpperPane\App\Data\FieldPictures;
use UpperPane\App\Data\PruneSources;
use UpperPane\App\Data\Snapshots;
use UpperPane\App\Handover\FreshData;
use UpperPane\App\Media\MediaAsset;
use UpperPane\Core\Handover\Sheet;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** Pictures that rows name by their addresses: fetched as sources are, looked into as uploads are, and shipped with what tells them. */
final class FieldPicturesTest extends ApiTestCase
{
    use FetchesDue;

    private string $source;

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
        $this->source = $this->ask('POST', '/api/sources', ['name' => 'Boats', 'document' => ['from' => ['address' => 'https://quay.example/data/boats.json'], 'every_s' => 3600]])[1]['id'];
        $this->rows('../photos/a/../tolm.png', 'https://other.example/gone.png', 'photos/page.png', 'javascript:alert(1)', 'https://trap.example/x.png', null);
    }

    public function testTheyAreFetchedLookedIntoAndShipped(): void
    {
        $this->handedOver();
        self::assertSame(['none.png'], $this->shown(), 'its standby until it is there');
        self::assertSame([0, 4], [$this->state()['there'], $this->state()['coming']], 'what is no address of the web is none');

        $asked = [];
        $this->fetches($asked, self::png(40, 30, 'teal'));
        sort($asked);
        self::assertSame(['https://other.example/gone.png', 'https://quay.example/data/photos/page.png', 'https://quay.example/photos/tolm.png'], $asked);
        self::assertSame([0, 2, 2], array_values(array_slice($this->state(), 0, 3)), 'two are looked into');
        $this->work();
        $state = $this->state();
        self::assertSame([1, 0, 3], array_values(array_slice($state, 0, 3)));
        $why = implode("\n", array_column($state['failures'], 'why'));
        foreach (['The server answers 404', '"page.png" is no picture', 'lies within the network here'] as $said) {
            self::assertStringContainsString($said, $why);
        }
        self::assertSame([], array_filter($this->ask('GET', '/api/media')[1]['media'], static fn (array $one): bool => $one['name'] === 'tolm.png'), 'nobody brought it in');

        self::assertGreaterThan(0, $this->bringsData());
        self::assertSame(['none.png', 'tolm.png'], $this->shown());
        $manifest = $this->manifest();
        $file = array_values(array_filter($manifest['media'], static fn (array $one): bool => $one['name'] === 'tolm.png'))[0];
        self::assertSame(self::png(40, 30, 'teal'), $this->published()->read(ltrim($file['url'], '/')));
        self::assertSame(0, $this->bringsData(), 'and nothing more');
    }

    /** Many that come one after the other are told together: the first at once, then when no more are on the way, be it that the last cannot be had. */
    public function testManyAreToldTogether(): void
    {
        $this->rows('a/tolm.png', 'b/tolm.png', 'c/tolm.png', 'gone.png');
        $this->handedOver();
        $pictures = static::getContainer()->get(FieldPictures::class);
        [$shown, $there] = [[], 0];
        while (($one = $pictures->take()) !== null) {
            $isThere = str_ends_with($one['address'], 'tolm.png');
            $bytes = $isThere ? self::png(20 + ++$there, 20, 'teal') : null;
            $pictures->came($this->source, $one['hash'], new Fetched($isThere ? 200 : 404, $bytes, 9, 9, $isThere ? null : 'The server answers 404.'));
            $this->work();
            $this->bringsData();
            $shown[] = count($this->shown());
        }
        self::assertSame([1 + $there, 4], [end($shown), $there], 'all of them, of the rows before as well, and the standby');
        self::assertSame([2, 1 + $there], array_values(array_diff(array_unique($shown), [1])), 'the first at once, the others together');
    }

    public function testWhatIsThereStaysUntilAnotherIsLookedInto(): void
    {
        $this->handedOver();
        $asked = [];
        $this->fetches($asked, self::png(40, 30, 'teal'));
        $this->work();
        $this->bringsData();
        static::mockTime('+25 hours');
        $this->fetches($asked, self::png(50, 50, 'red'));
        $this->rows('../photos/a/../tolm.png');
        $this->bringsData();
        self::assertSame(['none.png', 'tolm.png 40'], $this->shown(true), 'the new one is not looked into yet');
        $this->work();
        $this->bringsData();
        self::assertSame(['none.png', 'tolm.png 50'], $this->shown(true));
        // What fails stays what it was.
        static::mockTime('+25 hours');
        $this->fetches($asked, 'Back soon');
        $this->work();
        $this->bringsData();
        self::assertSame(['none.png', 'tolm.png 50'], $this->shown(true));
        self::assertSame([1, 1], [$this->state()['there'], count(array_filter($this->state()['failures'], static fn (array $one): bool => str_contains($one['address'], 'tolm')))]);
    }

    public function testWhatNobodyWantsAnyMoreIsForgotten(): void
    {
        $this->handedOver();
        $asked = [];
        $this->fetches($asked, self::png(40, 30, 'teal'));
        $this->work();
        $this->bringsData();
        $this->rows('photos/other.png');
        $this->bringsData();
        static::mockTime('+15 days');
        static::getContainer()->get(PruneSources::class)->run();
        $this->entities()->clear();
        self::assertSame([], array_filter($this->entities()->getRepository(MediaAsset::class)->findAll(), static fn (MediaAsset $one): bool => $one->ofSource !== null));
        self::assertSame(0, array_sum(array_slice($this->state(), 0, 3)));
    }

    public function testOfOneSourceNoMoreThanSoManyAreWantedAndNoMoreBytesKept(): void
    {
        $this->handedOver();
        $large = new MediaAsset('large', 'large.png', 499_999_900, self::now());
        $large->ofSource = $this->source;
        $this->entities()->persist($large);
        $this->entities()->flush();
        $asked = [];
        $this->fetches($asked, self::png(40, 30, 'teal'));
        self::assertStringContainsString('more than 500 MB together', implode(' ', array_column($this->state()['failures'], 'why')));
        $pictures = static::getContainer()->get(FieldPictures::class);
        for ($n = 0; $n < 2_100; $n++) {
            $pictures->of($this->source, static fn (): string => 'https://quay.example/a', "$n.png");
        }
        self::assertSame(2_000, array_sum(array_slice($this->state(), 0, 3)));
    }

    private function rows(?string ...$photos): void
    {
        $bytes = (string) json_encode(array_map(static fn (?string $photo): array => ['photo' => $photo], $photos));
        $document = $this->ask('GET', "/api/sources/$this->source")[1]['document'];
        static::getContainer()->get(Snapshots::class)->take($document, new Fetched(200, $bytes, strlen($bytes), 12, null));
    }

    private function handedOver(): void
    {
        $standby = $this->media('none', 100, 100)->media()?->toArray();
        $picture = ['id' => 'photo', 'kind' => 'picture', 'rect' => ['x' => 0, 'y' => 0, 'width' => 100, 'height' => 100], 'media' => ['field' => 'photo', 'standby' => $standby]];
        $board = ['id' => 'b', 'kind' => 'board', 'rect' => ['x' => 0, 'y' => 0, 'width' => 100, 'height' => 900], 'rows' => ['source' => $this->source], 'page_ms' => 3000]
            + ['pattern' => ['size' => ['width' => 100, 'height' => 100], 'elements' => [$picture]]];
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $this->made(Make::layout([$board]))['id']], 'displays' => ['wide']]);
        $this->bringsData();
    }

    /**
     * @param list<string> $asked addresses of pictures that were asked for
     * @param string $tolm what one of them is
     */
    private function fetches(array &$asked, string $tolm): void
    {
        $asked = [];
        $this->fetchDue(new MockHttpClient(static function (string $method, string $url) use (&$asked, $tolm): MockResponse {
            if (str_ends_with($url, '.png')) {
                $asked[] = $url;
            }

            return match (basename($url)) {
                'tolm.png' => new MockResponse($tolm),
                'page.png' => new MockResponse('<!DOCTYPE html><title>Not here</title>'),
                default => new MockResponse('', ['http_code' => 404]),
            };
        }));
    }

    private function bringsData(): int
    {
        static::getContainer()->get(FieldPictures::class)->reset();
        $done = static::getContainer()->get(FreshData::class)->doDue();
        $this->entities()->clear();

        return $done;
    }

    /** @return array{there: int, coming: int, failed: int, failures: list<array{address: string, why: string}>} */
    private function state(): array
    {
        return $this->ask('GET', "/api/sources/$this->source/state")[1]['pictures'];
    }

    /** @return list<string> names of the pictures that the display shows, by and by */
    private function shown(bool $withWidth = false): array
    {
        $read = fn (string $url): array => (array) json_decode($this->published()->read(ltrim($url, '/')), true);
        $sheet = Sheet::inOne($read($this->manifest()['planes']['base']['sheet']['url']), static fn (string $sha256): array => $read(Sheet::path($sha256)));
        $names = [];
        foreach (RunSheet::mediaIn($sheet['layers']) as $media) {
            $names[] = $media->name . ($withWidth && $media->name !== 'none.png' ? " {$media->size->width}" : '');
        }
        sort($names);

        return $names;
    }

    /** @return array<string, mixed> */
    private function manifest(): array
    {
        $file = $this->entities()->getConnection()->fetchOne('SELECT r.file FROM handed_release r JOIN surveyed_display s ON s.current_id = r.id WHERE s.id = ?', ['wide']);

        return (array) json_decode($this->published()->read(is_string($file) ? $file : ''), true);
    }

    private static function png(int $width, int $height, string $colour): string
    {
        $picture = imagecreatetruecolor(max(1, $width), max(1, $height)) ?: throw new \LogicException();
        imagefill($picture, 0, 0, (int) imagecolorallocate($picture, $colour === 'red' ? 200 : 20, 90, 90));
        ob_start();
        imagepng($picture);

        return (string) ob_get_clean();
    }
}
