<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Media;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Messenger\MessageBusInterface;
use UpperPane\App\Account\Who;
use UpperPane\App\Http\Upload;
use UpperPane\App\Media\BringInMedia;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Media\MediaAssets;
use UpperPane\App\Media\ProbeMedia;
use UpperPane\App\Media\ProbeMediaHandler;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Tests\App\ApiTestCase;

/** What is brought in is what it says it is, or is refused in a sentence. Films and pictures are made by ffmpeg here. */
final class ProbeTest extends ApiTestCase
{
    public function testAFilmIsMeasured(): void
    {
        $asset = $this->broughtIn('quay.mp4', self::ffmpeg('testsrc=s=320x180:d=2.4:r=25', 'mp4', '-pix_fmt', 'yuv420p'));

        self::assertSame(['ready', 320, 180, 2400], [$asset->state, $asset->width, $asset->height, $asset->lengthMs], (string) $asset->refusal);
        self::assertSame('image/png', (new \finfo(FILEINFO_MIME_TYPE))->buffer($this->published()->read((string) $asset->thumbnail)));
    }

    public function testADrawingIsMeasuredByItsViewBox(): void
    {
        $asset = $this->broughtIn('mark.svg', '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 30"><circle r="9"/></svg>');

        self::assertSame(['ready', 40, 30, null], [$asset->state, $asset->width, $asset->height, $asset->lengthMs], (string) $asset->refusal);
    }

    /** Exif 2.32, tag 274: the sides of a picture that a camera took on its side change places. */
    #[TestWith([1, 64, 48])]
    #[TestWith([3, 64, 48])]
    #[TestWith([6, 48, 64])]
    #[TestWith([8, 48, 64])]
    public function testAPhotographIsMeasuredAsItIsLookedAt(int $orientation, int $width, int $height): void
    {
        $jpeg = self::ffmpeg('testsrc=s=64x48:d=1', 'image2', '-frames:v', '1', '-c:v', 'mjpeg');
        $exif = "Exif\0\0MM\0*" . pack('NnnnNnnN', 8, 1, 0x0112, 3, 1, $orientation, 0, 0);
        $asset = $this->broughtIn('pier.jpg', substr($jpeg, 0, 2) . "\xFF\xE1" . pack('n', strlen($exif) + 2) . $exif . substr($jpeg, 2));

        self::assertSame(['ready', $width, $height], [$asset->state, $asset->width, $asset->height], (string) $asset->refusal);
        $thumbnail = getimagesizefromstring($this->published()->read((string) $asset->thumbnail));
        self::assertSame([$width, $height], [$thumbnail[0] ?? 0, $thumbnail[1] ?? 0], 'its small picture stands upright as well');
    }

    /** A part of a photograph that a camera took on its side: what one sees there is what one gets. */
    public function testAPartIsCutAsItIsLookedAt(): void
    {
        $this->signIn();
        // The left half is red and the right one is blue, as it lies; turned by its flag the upper half is red.
        $jpeg = self::ffmpeg('color=red:s=64x48:d=1', 'image2', '-vf', 'drawbox=x=32:w=32:h=48:color=blue:t=fill', '-frames:v', '1', '-c:v', 'mjpeg');
        $exif = "Exif\0\0MM\0*" . pack('NnnnNnnN', 8, 1, 0x0112, 3, 1, 6, 0, 0);
        $asset = $this->broughtIn('pier.jpg', substr($jpeg, 0, 2) . "\xFF\xE1" . pack('n', strlen($exif) + 2) . $exif . substr($jpeg, 2));
        [$status, $made] = $this->ask('POST', "/api/media/$asset->id/cut", ['x' => 3, 'y' => 35, 'width' => 40, 'height' => 20]);
        self::assertSame([201, 'ready', 40, 20, 'pier, part of 40 x 20.jpg'], [$status, $made['state'], $made['width'], $made['height'], $made['name']]);
        $picture = imagecreatefromstring($this->published()->read(ltrim($made['url'], '/')));
        self::assertNotFalse($picture);
        $colour = imagecolorsforindex($picture, (int) imagecolorat($picture, 20, 10));
        self::assertGreaterThan(200, $colour['blue'], 'of the lower half');
        $look = $this->ask('POST', "/api/media/$asset->id/cut/look", ['part' => ['x' => 3, 'y' => 35, 'width' => 40, 'height' => 20], 'box' => ['width' => 80, 'height' => 40]]);
        self::assertEquals([200, 2, true], [$look[0], $look[1]['scale'], $look[1]['soft']]);
        self::assertSame([422, '/'], [($refused = $this->ask('POST', "/api/media/$asset->id/cut", ['x' => 20, 'y' => 0, 'width' => 40, 'height' => 20]))[0], $refused[1]['error']['path'] ?: '/']);
    }

    public function testADrawingIsNotCut(): void
    {
        $this->signIn();
        $drawing = $this->broughtIn('mark.svg', '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 30"><circle r="9"/></svg>');
        self::assertSame(409, $this->ask('POST', "/api/media/$drawing->id/cut", ['x' => 0, 'y' => 0, 'width' => 4, 'height' => 4])[0]);
    }

    #[DataProvider('wrong')]
    public function testRefuses(string $name, string $bytes, string $sentence): void
    {
        $asset = $this->broughtIn($name, $bytes);

        self::assertSame('refused', $asset->state);
        self::assertStringContainsString($sentence, (string) $asset->refusal);
        self::assertStringContainsString("\"$name\"", (string) $asset->refusal);
        self::assertNull($asset->file);
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function wrong(): iterable
    {
        $svg = static fn (string $inside): string => '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="9" height="9">' . $inside . '</svg>';
        $jpeg = self::ffmpeg('testsrc=s=640x480:d=1', 'image2', '-frames:v', '1', '-c:v', 'mjpeg');
        $png = self::ffmpeg('testsrc=s=64x64:d=1', 'image2', '-frames:v', '1', '-c:v', 'png');
        yield 'a script named .png' => ['menu.png', "#!/bin/sh\nrm -rf /\n", 'is no picture or film; its content is'];
        yield 'a PHP file named .jpg' => ['menu.jpg', '<?php system($_GET["c"]);', 'is no picture or film'];
        yield 'a JPEG cut short' => ['pier.jpg', substr($jpeg, 0, (int) (strlen($jpeg) * 0.6)), 'is cut short'];
        yield 'a PNG cut short' => ['pier.png', substr($png, 0, (int) (strlen($png) * 0.6)), 'is damaged or cut short'];
        yield 'a PNG named .jpg' => ['pier.jpg', $png, 'says it is .jpg, but its content is image/png'];
        yield 'nothing' => ['empty.png', '', 'its content is empty'];
        yield 'a picture of 20,000 x 20,000 px' => ['huge.png', self::pngHeader(20_000, 20_000), 'no side may be longer than 16,384 px'];
        yield 'a film without a picture' => ['song.mp4', self::ffmpeg('sine=d=1', 'mp4'), 'has no picture, only sound'];
        yield 'a drawing with a script' => ['logo.svg', $svg('<script>alert(1)</script>'), 'carries a <script>'];
        yield 'a drawing with a handler' => ['logo.svg', $svg('<rect onload="alert(1)"/>'), 'carries a program in the attribute "onload"'];
        yield 'a drawing with a link that runs' => ['logo.svg', $svg('<a xlink:href="javascript:alert(1)"/>'), 'carries a program'];
        yield 'a drawing that fetches' => ['logo.svg', $svg('<image href="http://127.0.0.1/x.png"/>'), 'refers to another file'];
        yield 'a drawing that is none' => ['logo.svg', '<svg><g></svg>', 'is no well-formed SVG drawing'];
        yield 'a drawing that expands' => ['logo.svg', '<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a "b">]>' . $svg('&a;'), 'begins with a DOCTYPE'];
    }

    public function testAnUploadWaitsForTheWorker(): void
    {
        $this->signIn();
        $file = tempnam(sys_get_temp_dir(), 'up');
        self::assertIsString($file);
        file_put_contents($file, 'bytes');
        $csrf = $this->ask('GET', '/api/session')[1]['csrf'];
        $upload = new UploadedFile($file, '../quay.png', test: true);
        $this->client->request('POST', '/api/media', files: ['file' => $upload], server: ['HTTP_X_CSRF_TOKEN' => $csrf]);

        self::assertSame(202, $this->client->getResponse()->getStatusCode());
        [, $list] = $this->ask('GET', '/api/media');
        self::assertSame([['quay.png', 'waiting', 5]], array_map(static fn (array $m): array => [$m['name'], $m['state'], $m['bytes']], $list['media']));
    }

    /** The database was killed after it had written all, and before it said so. */
    public function testBytesOfAnUploadStayWhereNobodyAnswersWhetherItIsNoted(): void
    {
        $noted = $this->entities()->getConnection();
        $bus = $this->createStub(MessageBusInterface::class);
        $bus->method('dispatch')->willReturnCallback(function () use ($noted): never {
            $this->entities()->flush();
            $noted->commit();
            throw new \RuntimeException('Gone away.');
        });
        $file = (string) tempnam(sys_get_temp_dir(), 'upper-pane');
        file_put_contents($file, self::ffmpeg('testsrc=s=64x48:d=1', 'image2', '-frames:v', '1', '-c:v', 'png'));
        $container = static::getContainer();
        $bringIn = new BringInMedia(
            $container->get(MediaAssets::class),
            $container->get(Transaction::class),
            $container->get(Record::class),
            $bus,
            $container->get(Who::class),
            $container->get(ClockInterface::class),
            $container->get('app.incoming'),
        );
        $request = new Request(files: ['file' => new UploadedFile($file, 'quay.png', test: true)]);
        try {
            $bringIn->of(Upload::of($request));
            self::fail('It is said that nobody answered.');
        } catch (\RuntimeException $e) {
            self::assertSame('Gone away.', $e->getMessage());
        }
        [$asset] = $this->entities()->getRepository(MediaAsset::class)->findAll();
        ($container->get(ProbeMediaHandler::class))(new ProbeMedia($asset->id));
        self::assertSame('ready', $asset->state, (string) $asset->refusal);
    }

    /** Its worker was stopped before it could say that it was done. */
    public function testWhatWasRefusedStaysRefusedForItsReason(): void
    {
        $asset = $this->broughtIn('menu.png', 'no picture');
        $why = $asset->refusal;
        (static::getContainer()->get(ProbeMediaHandler::class))(new ProbeMedia('asset'));
        self::assertSame(['refused', $why], [$asset->state, $asset->refusal]);
    }

    private function broughtIn(string $name, string $bytes): MediaAsset
    {
        $asset = new MediaAsset('asset', $name, strlen($bytes), self::now());
        $this->entities()->persist($asset);
        $this->entities()->flush();
        $incoming = static::getContainer()->get('app.incoming');
        $incoming->write('asset', $bytes);
        (static::getContainer()->get(ProbeMediaHandler::class))(new ProbeMedia('asset'));
        self::assertFalse($incoming->fileExists('asset'));

        return $asset;
    }

    private static function ffmpeg(string $source, string $format, string ...$options): string
    {
        $file = sys_get_temp_dir() . '/upper-pane-probe-' . bin2hex(random_bytes(4));
        $command = ['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', $source, ...$options, '-f', $format, $file];
        exec(implode(' ', array_map(escapeshellarg(...), $command)), result_code: $code);
        self::assertSame(0, $code);
        $bytes = (string) file_get_contents($file);
        unlink($file);

        return $bytes;
    }

    /** A PNG that says it is so large, as PNG (ISO/IEC 15948) 11.2.2 writes it; nobody has to hold its pixels. */
    private static function pngHeader(int $width, int $height): string
    {
        $chunk = static fn (string $type, string $data): string => pack('N', strlen($data)) . $type . $data . pack('N', crc32($type . $data));

        return "\x89PNG\r\n\x1a\n" . $chunk('IHDR', pack('NNCCCCC', $width, $height, 8, 2, 0, 0, 0)) . $chunk('IDAT', (string) gzcompress('')) . $chunk('IEND', '');
    }
}
