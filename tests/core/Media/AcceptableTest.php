<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Media;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Media\Acceptable;
use UpperPane\Core\Media\Drawing;
use UpperPane\Core\Media\NotAcceptable;

/** What players are asked to show, and what they are spared. */
final class AcceptableTest extends TestCase
{
    #[TestWith(['image/png', 'pier.png', 'png'])]
    #[TestWith(['image/jpeg', 'Pier.JPEG', 'jpg'])]
    #[TestWith(['video/quicktime', 'quay.mov', 'mp4'])]
    #[TestWith(['video/x-m4v', 'quay.m4v', 'mp4'])]
    #[TestWith(['video/x-matroska', 'quay.mkv', 'webm'])]
    #[TestWith(['image/svg+xml', 'a.b.svg', 'svg'])]
    public function testATypeHasOneEnding(string $type, string $name, string $ending): void
    {
        self::assertSame($ending, Acceptable::extension($type, $name));
    }

    #[TestWith(['text/x-shellscript', 'menu.png', 'its content is a program (text/x-shellscript)'])]
    #[TestWith(['text/x-php', 'menu.jpg', 'its content is a program (text/x-php)'])]
    #[TestWith(['text/plain', 'menu.txt', 'its content is text (text/plain)'])]
    #[TestWith(['audio/mpeg', 'song.mp3', 'its content is sound alone (audio/mpeg)'])]
    #[TestWith(['application/x-empty', 'menu.png', 'its content is empty'])]
    #[TestWith(['application/pdf', 'menu.pdf', 'its content is application/pdf'])]
    #[TestWith(['image/png', 'pier', 'says it is nothing, but its content is image/png'])]
    #[TestWith(['image/png', 'pier.jpg', 'says it is .jpg, but its content is image/png'])]
    public function testAnythingElseIsRefusedForWhatItIs(string $type, string $name, string $reason): void
    {
        $this->expectException(NotAcceptable::class);
        $this->expectExceptionMessage($reason);
        Acceptable::extension($type, $name);
    }

    #[TestWith([16_384, 1000, null])]
    #[TestWith([10_000, 10_000, null])]
    #[TestWith([16_385, 10, 'It is 16385 x 10 px; no side may be longer than 16,384 px'])]
    #[TestWith([10, 20_000, 'no side may be longer than 16,384 px'])]
    #[TestWith([12_000, 12_000, 'It has 144 million pixels; 100 million are the most'])]
    public function testRastersThatPlayersDrawAreTaken(int $width, int $height, ?string $reason): void
    {
        $said = self::refusal(static fn () => Acceptable::raster(Size::px($width, $height)));

        $reason === null ? self::assertNull($said) : self::assertStringContainsString($reason, (string) $said);
    }

    /** In one pass, whatever a drawing program writes: what stands last is found too. */
    public function testALargeDrawingIsReadToItsEnd(): void
    {
        $drawing = static fn (string $last): string => '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9">' . str_repeat('<path d="M0 0h1"/>', 80_000) . $last . '</svg>';
        self::assertSame('9 x 9', (string) Drawing::size($drawing('')));
        self::assertStringContainsString('carries a <script>', (string) self::refusal(static fn () => Drawing::size($drawing('<g><script/></g>'))));
    }

    public function testACodecThatBrowsersDoNotDecodeIsNamed(): void
    {
        self::assertNull(self::refusal(static fn () => Acceptable::codec('av1')));
        self::assertSame(
            'is coded as prores; players show h264, vp8, vp9, av1. Export it as H.264 and bring it in again.',
            self::refusal(static fn () => Acceptable::codec('prores')),
        );
    }

    #[TestWith(['width="40" height="30"', 40, 30])]
    #[TestWith(['width="40.6px" height="30px"', 41, 30])]
    #[TestWith(['viewBox="0 0 40 30"', 40, 30])]
    #[TestWith(['viewBox="-5,-5, 40.4 , 30"', 40, 30])]
    #[TestWith(['width="100%" height="100%" viewBox="0 0 40 30"', 40, 30])]
    #[TestWith(['width="10cm" height="30" viewBox="0 0 40 30"', 40, 30])]
    public function testADrawingTellsItsSize(string $attributes, int $width, int $height): void
    {
        self::assertTrue(Size::px($width, $height)->equals(Drawing::size("<svg xmlns=\"http://www.w3.org/2000/svg\" $attributes/>")));
    }

    #[DataProvider('drawings')]
    public function testADrawingIsADrawingAndNothingElse(string $inside, ?string $reason): void
    {
        $svg = '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="9" height="9">' . $inside . '</svg>';
        $said = self::refusal(static fn () => Drawing::size($svg));

        $reason === null ? self::assertNull($said) : self::assertStringContainsString($reason, (string) $said);
    }

    /** @return iterable<string, array{string, ?string}> */
    public static function drawings(): iterable
    {
        yield 'a picture that it carries itself' => ['<image href="data:image/png;base64,AAAA"/>', null];
        yield 'a part of its own' => ['<use href="#mark"/><use xlink:href="#mark"/>', null];
        yield 'a word that only looks like a handler' => ['<text font-size="9">on time</text>', null];
        yield 'a script' => ['<script>alert(1)</script>', 'carries a <script>'];
        yield 'a script in capitals' => ['<SCRIPT>alert(1)</SCRIPT>', 'carries a <SCRIPT>'];
        yield 'a page within' => ['<foreignObject><p xmlns="http://www.w3.org/1999/xhtml"/></foreignObject>', 'carries a <foreignObject>'];
        yield 'a handler' => ['<rect onClick="alert(1)"/>', 'in the attribute "onclick"'];
        yield 'an animation that sets a link' => ['<set attributeName="href" to="javascript:alert(1)"/>', 'in the attribute "to"'];
        yield 'a link that runs' => ['<a href=" JavaScript:alert(1)"/>', 'carries a program'];
        yield 'a link that runs, cut by white space' => ["<a href=\"java&#10;script:alert(1)\"/>", 'carries a program'];
        yield 'a page given as data' => ['<use href="data:text/html,hello"/>', 'refers to another file'];
        yield 'a picture from elsewhere' => ['<image xlink:href="//127.0.0.1/x.png"/>', 'refers to another file'];
    }

    #[TestWith([''])]
    #[TestWith(['<svg>'])]
    #[TestWith(['<html xmlns="http://www.w3.org/1999/xhtml"/>'])]
    public function testWhatIsNoDrawing(string $svg): void
    {
        self::assertSame('is no well-formed SVG drawing.', self::refusal(static fn () => Drawing::size($svg)));
    }

    /** It may declare what grows without bound: refused in whatever encoding it comes. */
    #[TestWith(['<!DOCTYPE svg>'])]
    #[TestWith(['<!DOCTYPE svg [<!ENTITY a "aaaa">]>'])]
    #[TestWith(['<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd">'])]
    public function testADrawingWithADoctypeIsNotTaken(string $doctype): void
    {
        $svg = "$doctype<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"9\" height=\"9\"/>";
        foreach (['UTF-8' => '', 'UTF-16BE' => "\xFE\xFF", 'UTF-16LE' => "\xFF\xFE"] as $encoding => $mark) {
            self::assertStringStartsWith('begins with a DOCTYPE', (string) self::refusal(static fn () => Drawing::size($mark . mb_convert_encoding($svg, $encoding, 'UTF-8'))), $encoding);
        }
    }

    #[TestWith([''])]
    #[TestWith(['viewBox="0 0 40"'])]
    #[TestWith(['width="0" height="9"'])]
    #[TestWith(['width="9000000" height="9"'])]
    public function testADrawingWithoutAUsableSize(string $attributes): void
    {
        self::assertStringContainsString('neither width and height', (string) self::refusal(static fn () => Drawing::size("<svg xmlns=\"http://www.w3.org/2000/svg\" $attributes/>")));
    }

    /** @param \Closure(): mixed $look */
    private static function refusal(\Closure $look): ?string
    {
        try {
            $look();
        } catch (NotAcceptable $e) {
            return $e->getMessage();
        }

        return null;
    }
}
