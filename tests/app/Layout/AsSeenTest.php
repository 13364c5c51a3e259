<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Layout;

use UpperPane\App\Media\MediaAsset;
use UpperPane\Tests\App\ApiTestCase;

/** Words over pictures that were brought in: measured in the faces of the house, held against the colours of the pictures. */
final class AsSeenTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testWordsOverABrightPictureAreToldInTheComposerAndAtTheHandover(): void
    {
        $document = $this->over($this->picture('bright', [250, 250, 240]));
        [$status, $said] = $this->ask('POST', '/api/cures', ['document' => $document, 'display' => 'wide']);
        $contrast = array_values(array_filter($said['findings'], static fn (array $finding): bool => $finding['code'] === 'text.contrast'));
        self::assertSame([200, 1, 'Outline it in black, 6 px'], [$status, count($contrast), $contrast[0]['fix']['label']]);
        self::assertSame(['outline' => ['px' => 6, 'color' => '#000000']], $contrast[0]['fix']['style']);

        $document['elements'][1]['style'] += $contrast[0]['fix']['style'];
        $said = $this->ask('POST', '/api/analysis', ['document' => $document, 'display' => 'wide', 'light' => true])[1];
        self::assertNotContains('text.contrast', array_column($said['findings'], 'code'));

        unset($document['elements'][1]['style']['outline']);
        $made = $this->made($document);
        $offers = $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => 'layout', 'id' => $made['id']], 'displays' => ['wide']])[1];
        self::assertStringContainsString('text.contrast', (string) json_encode($offers));
    }

    public function testTheColoursOfAPictureAreReadOnceAndKept(): void
    {
        $asset = $this->picture('dark', [10, 20, 60]);
        $said = $this->ask('POST', '/api/as-seen', ['document' => $this->over($asset), 'display' => 'wide'])[1];

        self::assertSame(['words', 'dark.png', 4.5], [$said['texts'][0]['element'], $said['texts'][0]['over'], $said['texts'][0]['needed']]);
        self::assertSame(17.82, $said['texts'][0]['ratio'], '#ffffff on #0a143c, as colorjs.io says');
        self::assertSame(253, (int) round($said['from'][0]['width_px']), 'a 43 inch class display, 10 m away');
        self::assertTrue($this->published()->fileExists("$asset->thumbnail.swatch"));
        self::assertSame([], $this->ask('POST', '/api/as-seen', ['document' => $this->over($asset)])[1]['from'], 'no display');
        self::assertSame(422, $this->ask('POST', '/api/as-seen', ['document' => []])[0]);
    }

    public function testTheColourOfTheEdgeOfAPictureIsOffered(): void
    {
        $this->picture('logo', [20, 102, 91]);
        self::assertSame([200, ['color' => '#14665b', 'share' => 1]], $this->ask('GET', '/api/media/logo/edge'));
        $this->media('broken');
        self::assertSame([409, 'edge.unknown'], [($refused = $this->ask('GET', '/api/media/broken/edge'))[0], $refused[1]['error']['code']]);
    }

    public function testWhatCannotBeDecodedIsNotJudged(): void
    {
        $said = $this->ask('POST', '/api/as-seen', ['document' => $this->over($this->media('broken'))])[1];
        self::assertNull($said['texts'][0]['ratio']);
    }

    /** @param array{int<0, 255>, int<0, 255>, int<0, 255>} $colour */
    private function picture(string $id, array $colour): MediaAsset
    {
        $asset = $this->media($id);
        $picture = imagecreatetruecolor(320, 180);
        self::assertNotFalse($picture);
        imagefill($picture, 0, 0, (int) imagecolorallocate($picture, ...$colour));
        ob_start();
        imagepng($picture);
        $asset->thumbnail = "thumbnails/$id.png";
        $this->published()->write($asset->thumbnail, (string) ob_get_clean());
        $this->entities()->flush();

        return $asset;
    }

    /** @return array<string, mixed> */
    private function over(MediaAsset $asset): array
    {
        $document = $this->whole($asset);
        $document['elements'][] = [
            'id' => 'words', 'kind' => 'text', 'rect' => ['x' => 100, 'y' => 100, 'width' => 1600, 'height' => 200], 'text' => 'Welcome aboard',
            'style' => ['family' => 'Inter', 'size_px' => 150, 'color' => '#ffffff'],
        ];

        return $document;
    }
}
