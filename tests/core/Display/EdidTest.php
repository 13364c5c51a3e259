<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Display;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Edid;
use UpperPane\Core\Document\Refused;
use UpperPane\Tests\Core\MakeEdid;

final class EdidTest extends TestCase
{
    public function testTellsWhatAPanelSaysOfItself(): void
    {
        $edid = Edid::fromBytes(MakeEdid::of([MakeEdid::fullHd(), MakeEdid::name('Quay 43')], [MakeEdid::cta([16, 0x80 | 4, 97, 193, 0, 128, 255])]))->toArray();

        self::assertSame(['UPX', 0x1234, 'Quay 43', ['width' => 1920, 'height' => 1080]], [$edid['manufacturer'], $edid['product'], $edid['name'], $edid['native']]);
        self::assertSame(['width' => 941.0, 'height' => 529.0], $edid['size_mm']);
        self::assertSame([16, 4, 97, 193], $edid['vics'], 'with and without the mark for native ones; what says nothing is left out');
        self::assertSame(
            [['width' => 1920, 'height' => 1080, 'pixel_clock_khz' => 148_500, 'h_total' => 2200, 'v_total' => 1125,
                'h_front' => 88, 'h_sync' => 44, 'h_back' => 148, 'v_front' => 4, 'v_sync' => 5, 'v_back' => 36, 'refresh_hz' => 60.0]],
            $edid['timings'],
        );
    }

    public function testAStretchedBarKeepsItsFigures(): void
    {
        $more = MakeEdid::cta([], [MakeEdid::timing(300_000, 3840, 300, 700, 1000, 1080, 60, 40, 300)]);
        $edid = Edid::fromBytes(MakeEdid::of([MakeEdid::timing(81_750, 1920, 64, 192, 256, 540, 3, 10, 9, 895, 252)], [$more]));

        self::assertSame('1920 x 540', (string) $edid->native());
        self::assertNull($edid->name);
        $second = $edid->timings[1];
        self::assertSame([300, 700, 1000, 60, 40, 300], [$second->hFront, $second->hSync, $second->hBack, $second->vFront, $second->vSync, $second->vBack]);
    }

    public function testTheSizeIsThatOfTheTimingOrElseOfTheBaseBlock(): void
    {
        $without = MakeEdid::timing(148_500, 1920, 88, 44, 148, 1080, 4, 5, 36, 0, 0);

        self::assertSame(['width' => 940.0, 'height' => 530.0], Edid::fromBytes(MakeEdid::of([$without]))->sizeMm);
        self::assertNull(Edid::fromBytes(MakeEdid::of([$without], widthCm: 0, heightCm: 0))->sizeMm);
        self::assertNull(Edid::fromBytes(MakeEdid::of([]))->native());
        self::assertSame([], Edid::fromBytes(MakeEdid::of([MakeEdid::timing(74_250, 1920, 88, 44, 148, 540, 2, 5, 15, flags: 0x9E)]))->timings, 'an interlaced one');
    }

    #[DataProvider('damaged')]
    public function testDamagedDataAreRefusedWithWhatWouldBeRight(string $bytes, string $reason, string $message): void
    {
        try {
            Edid::fromBytes($bytes);
            self::fail('It was taken.');
        } catch (Refused $e) {
            self::assertSame($reason, $e->reason->value);
            self::assertStringContainsString($message, $e->getMessage());
        }
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function damaged(): iterable
    {
        $good = MakeEdid::of([MakeEdid::fullHd()]);
        $sum = ord($good[127]);
        yield 'nothing' => ['', 'edid.length', 'It has 0 bytes; an EDID has 128'];
        yield '127 bytes' => [substr($good, 0, 127), 'edid.length', 'It has 127 bytes'];
        yield 'text' => [str_repeat('x', 128), 'edid.header', 'It begins with 7878787878787878'];
        yield 'a wrong checksum' => [substr($good, 0, 127) . chr($sum ^ 1), 'edid.checksum', sprintf('is 0x%02x; 0x%02x would be right', $sum ^ 1, $sum)];
        yield 'a flipped bit' => [substr_replace($good, chr(ord($good[60]) ^ 8), 60, 1), 'edid.checksum', 'The checksum of block 0'];
        yield 'an extension that is not there' => [substr_replace($good, "\x01", 126, 1), 'edid.length', 'It says that 1 extensions follow, and 0 do.'];
        $two = MakeEdid::of([MakeEdid::fullHd()], [MakeEdid::cta([16])]);
        yield 'a damaged extension' => [substr_replace($two, "\xFF", 200, 1), 'edid.checksum', 'The checksum of block 1'];
    }

    #[TestWith(["Deck \xE9\x00strip\n", "Deck \u{FFFD}\u{FFFD}strip"])]
    #[TestWith(["\n", null])]
    #[TestWith(["  Quay 2\n   ", 'Quay 2'])]
    public function testANameHasLettersOfAscii(string $written, ?string $name): void
    {
        $edid = Edid::fromBytes(MakeEdid::of([MakeEdid::fullHd(), "\x00\x00\x00\xFC\x00" . str_pad($written, 13)]));
        self::assertSame($name, $edid->name);
        self::assertJson(json_encode($edid->toArray(), JSON_THROW_ON_ERROR));
    }

    public function testNoBytesBringItDown(): void
    {
        $random = \UpperPane\Tests\Core\Make::random(8);
        for ($i = 0; $i < 300; $i++) {
            $extension = $random->getBytes(127);
            $edid = Edid::fromBytes(MakeEdid::of([$random->getBytes(18), $random->getBytes(18)], [($i % 2 === 0 ? "\x02\x03" : '') . substr($extension, $i % 2 === 0 ? 2 : 0)]));
            foreach ($edid->vics as $vic) {
                self::assertTrue($vic > 0 && $vic < 254);
            }
        }
        self::assertSame('UPX', $edid->manufacturer);
    }
}
