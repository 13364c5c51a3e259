<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Text;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Text\FaceFile;
use UpperPane\Tests\Core\Make;

/** What is no face, or says nothing of its capitals. What real ones say is held against Chromium in the reference suite. */
final class FaceFileTest extends TestCase
{
    public function testTheHeightOfCapitalsIsReadFromTheTables(): void
    {
        self::assertSame(0.7, FaceFile::fromBytes(self::face(2000, 4, 1400))?->capShare);
        self::assertNull(FaceFile::fromBytes(self::face(2000, 1, 1400)), 'version 1 of the table has no such figure');
        self::assertNull(FaceFile::fromBytes(self::face(0, 4, 1400)));
    }

    public function testBytesThatAreNoFaceSayNothing(): void
    {
        $random = Make::random(5);
        $face = self::face(2000, 4, 1400);
        foreach (['', 'OTTO', substr($face, 0, 40), substr($face, 0, -40), $random->getBytes(300), "\x00\x01\x00\x00" . $random->getBytes(300)] as $bytes) {
            self::assertNull(FaceFile::fromBytes($bytes));
        }
    }

    private static function face(int $unitsPerEm, int $version, int $capHeight): string
    {
        $head = str_pad(str_repeat("\x00", 18) . pack('n', $unitsPerEm), 54, "\x00");
        $metrics = pack('n', $version) . str_repeat("\x00", 86) . pack('n', $capHeight) . str_repeat("\x00", 6);

        return "\x00\x01\x00\x00" . pack('nnnn', 2, 0, 0, 0)
            . 'OS/2' . pack('NNN', 0, 44, strlen($metrics))
            . 'head' . pack('NNN', 0, 44 + strlen($metrics), strlen($head))
            . $metrics . $head;
    }
}
