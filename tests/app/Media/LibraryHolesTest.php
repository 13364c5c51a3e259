<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Media;

use UpperPane\App\Media\LibraryHoles;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Media\ProbeMedia;
use UpperPane\App\Media\ProbeMediaHandler;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Overlay\OverlayDocuments;

/** A picture with a transparent part, drawn here by GD, is a window: what plays goes on in its hole. */
final class LibraryHolesTest extends ApiTestCase
{
    public function testTheHoleIsFoundOnceAndHoldsWhatPlays(): void
    {
        $this->signIn();
        $sign = $this->brought('sign', static function (\GdImage $picture): void {
            // Two openings: the larger one counts; of one that is half seen through nothing is taken.
            self::fill($picture, 20, 10, 219, 109, 127);
            self::fill($picture, 260, 10, 299, 49, 127);
            self::fill($picture, 20, 120, 299, 169, 64);
        });
        $holes = static::getContainer()->get(LibraryHoles::class);
        $media = $sign->media() ?? throw new \LogicException();
        self::assertEquals(Rect::at(20, 10, 200, 100), $holes->largest($media));
        self::assertTrue($this->published()->fileExists("$sign->file.hole"), 'looked at once');
        $this->published()->write("$sign->file.hole", '1 2 3 4');
        self::assertEquals(Rect::at(20, 10, 200, 100), $holes->largest($media), 'known');

        $this->published()->delete("$sign->file.hole");
        $whole = $this->brought('whole', static fn (\GdImage $picture) => null);
        $layout = $this->made(Make::layout([Make::told('head', 'Sailings', message: false)]))['id'];
        $window = fn (MediaAsset $asset): string => $this->ask('POST', '/api/overlays', ['name' => 'Window', 'document' => ['plays' => ['media' => $asset->id]]
            + array_diff_key(OverlayDocuments::window(), ['id' => 1, 'name' => 1, 'format' => 1])])[1]['id'];
        $put = function (string $overlay) use ($layout): array {
            $this->ask('PUT', '/api/places/hall/settings', ['setting' => 'overlays', 'value' => ['add' => [$overlay]]]);

            return $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => 'layout', 'id' => $layout], 'displays' => ['wide']])[1]['offers'][0];
        };
        self::assertNotContains('overlay.hole', array_column($put($window($sign))['findings'], 'code'));
        self::assertContains('overlay.hole', array_column($put($window($whole))['findings'], 'code'), 'one without a hole would hide what plays');
    }

    /** @param \Closure(\GdImage): mixed $draw */
    private function brought(string $id, \Closure $draw): MediaAsset
    {
        $picture = imagecreatetruecolor(320, 180);
        imagealphablending($picture, false);
        imagesavealpha($picture, true);
        self::fill($picture, 0, 0, 319, 179, 0);
        $draw($picture);
        ob_start();
        imagepng($picture);
        $bytes = (string) ob_get_clean();
        $asset = new MediaAsset($id, "$id.png", strlen($bytes), self::now(), 'ines');
        static::getContainer()->get('app.incoming')->write($id, $bytes);
        $this->entities()->persist($asset);
        $this->entities()->flush();
        static::getContainer()->get(ProbeMediaHandler::class)(new ProbeMedia($id));
        self::assertSame(MediaAsset::READY, $asset->state, (string) $asset->refusal);

        return $asset;
    }

    /** @param int<0, 127> $alpha how transparent it is */
    private static function fill(\GdImage $picture, int $left, int $top, int $right, int $bottom, int $alpha): void
    {
        imagefilledrectangle($picture, $left, $top, $right, $bottom, (int) imagecolorallocatealpha($picture, 20, 90, 80, $alpha));
    }
}
