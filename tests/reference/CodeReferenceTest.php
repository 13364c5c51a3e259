<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\App\Layout\QrCodes;
use UpperPane\Core\Layout\Kind\Code\CodeSize;
use UpperPane\Tests\Core\Make;

/** How large codes are and what stands in them: against BaconQrCode 2.0 (the library that draws them, for the size) and against zbarimg (Debian zbar-tools) for the content. */
final class CodeReferenceTest extends TestCase
{
    /** At the very end of each capacity, and one character further, in figures, capitals and bytes. */
    public function testVersionsAreThoseThatTheLibraryNeeds(): void
    {
        $codes = new QrCodes();
        $random = Make::random(18_004);
        $checked = 0;
        foreach (['L', 'M', 'Q', 'H'] as $level) {
            foreach (['7', 'A', 'a', 'é'] as $letter) {
                // Small ones all, of large ones some: the library takes its time.
                foreach ([1, 2, 3, 5, 9, 10, 26, 27] as $version) {
                    if ($version > 10 && $random->getInt(0, 3) > 0) {
                        continue;
                    }
                    $most = $this->longest($letter, $level, $version);
                    foreach ([$most, $most + 1] as $length) {
                        $text = str_repeat($letter, $length);
                        self::assertSame(CodeSize::modules((int) CodeSize::version($text, $level)), count($codes->modules($text, $level)), "$length x $letter at $level");
                        $checked++;
                    }
                }
            }
        }
        self::assertGreaterThan(180, $checked);
        self::assertNull(CodeSize::version(str_repeat('a', 2954), 'L'));
        $most = ['a' => 2953, '7' => 7088, 'A' => 4296];
        foreach ($most as $letter => $length) {
            self::assertSame(40, CodeSize::version(str_repeat((string) $letter, $length), 'L'), 'ISO/IEC 18004, table 1 (from memory)');
        }
    }

    public function testZbarReadsWhatStandsInThem(): void
    {
        $codes = new QrCodes();
        foreach (['https://pellan.example/sailings?from=saltgate', 'HTTPS://UP.EXAMPLE/7', '0123456789', 'São João – Ærø', trim(str_repeat('a long text ', 30))] as $text) {
            foreach (['L', 'M', 'Q', 'H'] as $level) {
                self::assertSame($text, $this->scanned($codes->modules($text, $level)), "$level of \"$text\"");
            }
        }
    }

    /** @param "L"|"M"|"Q"|"H" $level */
    private function longest(string $letter, string $level, int $version): int
    {
        [$least, $most] = [0, 4000];
        while ($least < $most) {
            $middle = intdiv($least + $most + 1, 2);
            (CodeSize::version(str_repeat($letter, $middle), $level) ?? 41) <= $version ? $least = $middle : $most = $middle - 1;
        }

        return $least;
    }

    /** @param list<string> $rows */
    private function scanned(array $rows): string
    {
        $across = count($rows) + 8;
        $picture = imagecreatetruecolor(6 * $across, 6 * $across);
        self::assertNotFalse($picture);
        imagefill($picture, 0, 0, 0xffffff);
        foreach ($rows as $y => $row) {
            foreach (str_split($row) as $x => $module) {
                if ($module === '1') {
                    imagefilledrectangle($picture, 6 * ($x + 4), 6 * ($y + 4), 6 * ($x + 5) - 1, 6 * ($y + 5) - 1, 0);
                }
            }
        }
        $file = tempnam(sys_get_temp_dir(), 'code') . '.png';
        imagepng($picture, $file);
        exec('zbarimg --raw -q ' . escapeshellarg($file), $out);
        unlink($file);

        return implode("\n", $out);
    }
}
