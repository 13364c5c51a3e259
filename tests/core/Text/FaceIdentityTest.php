<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Text;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Text\FaceIdentity;

/** What is brought in as a type face, and what is none. Faces are built here table by table (OpenType 1.9, table directory). */
final class FaceIdentityTest extends TestCase
{
    public function testAFaceSaysItsFamilyAndWeight(): void
    {
        self::assertSame(['Quay Sans', 700, false], self::told(self::face(['Quay Sans', 'Bold'], 700)));
        self::assertSame(['Quay Sans Italic', 400, false], self::told(self::face(['Quay Sans', 'Italic'], 400, selection: 1)), 'slanted letters are a family of their own');
        self::assertSame(['Quay Sans', 300, false], self::told(self::face(['Quay Sans', 'Light'], 3)), 'weights of old programs');
        self::assertSame(['Quay Sans', 400, true], self::told(self::face(['Quay Sans', 'Regular'], 400, more: ['fvar' => 'x'])));
        self::assertSame(['Kaj', 400, false], self::told(self::face(['Ka"j;', 'Regular'], 400)), 'what would end a name in a style sheet is left out');
    }

    /** @return iterable<string, array{string, string}> */
    public static function noFaces(): iterable
    {
        yield 'nothing' => ['', 'It is no type face'];
        yield 'a picture' => ["\x89PNG\r\n\x1a\n" . str_repeat('x', 100), 'It is no type face'];
        yield 'a web font' => ['wOF2' . str_repeat('x', 100), 'WOFF'];
        yield 'a collection' => ['ttcf' . str_repeat('x', 100), 'TTC'];
        yield 'a directory without tables' => ["\x00\x01\x00\x00" . str_repeat("\0", 40), 'no table cmap'];
        yield 'one cut in the middle' => [substr(self::face(['Quay Sans', 'Bold'], 700), 0, -60), 'damaged type face'];
        yield 'one without outlines' => [self::face(['Quay Sans', 'Bold'], 700, outlines: null), 'no outlines'];
        yield 'one without a name' => [self::face(['', 'Bold'], 700), 'does not say what its family is called'];
        yield 'one that may not be shipped' => [self::face(['Quay Sans', 'Bold'], 700, fsType: 2), 'fsType'];
    }

    #[DataProvider('noFaces')]
    public function testWhatIsNoFaceIsRefusedWithTheReason(string $bytes, string $why): void
    {
        $this->expectException(\DomainException::class);
        $this->expectExceptionMessage($why);
        FaceIdentity::fromBytes($bytes);
    }

    /** @return array{string, int, bool} */
    private static function told(string $bytes): array
    {
        $face = FaceIdentity::fromBytes($bytes);

        return [$face->family, $face->weight, $face->isVariable];
    }

    /**
     * @param array{string, string} $names family and style
     * @param array<string, string> $more tables
     */
    private static function face(array $names, int $weight, int $selection = 0, int $fsType = 0, ?string $outlines = 'glyf', array $more = []): string
    {
        $strings = '';
        $records = '';
        foreach ([1 => $names[0], 2 => $names[1]] as $id => $name) {
            $utf16 = mb_convert_encoding($name, 'UTF-16BE', 'UTF-8');
            $records .= pack('n6', 3, 1, 0x0409, $id, strlen($utf16), strlen($strings));
            $strings .= $utf16;
        }
        $os2 = str_repeat("\0", 96);
        foreach ([[4, $weight], [8, $fsType], [62, $selection]] as [$at, $value]) {
            $os2 = substr_replace($os2, pack('n', $value), $at, 2);
        }
        $tables = $more + ['OS/2' => $os2, 'name' => pack('n3', 0, 2, 6 + strlen($records)) . $records . $strings] + array_fill_keys(['cmap', 'head', 'hhea', 'hmtx', 'maxp'], 'x');
        $tables += $outlines === null ? [] : [$outlines => str_repeat('x', 80)];
        $at = 12 + 16 * count($tables);
        [$directory, $bodies] = ['', ''];
        foreach ($tables as $tag => $body) {
            $directory .= $tag . pack('N3', 0, $at + strlen($bodies), strlen($body));
            $bodies .= $body;
        }

        return "\x00\x01\x00\x00" . pack('n4', count($tables), 0, 0, 0) . $directory . $bodies;
    }
}
