<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\App\Media\AlphaHoles;
use UpperPane\Core\Geometry\Hole;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Media\Media;
use UpperPane\Tests\Core\Make;

/** The largest hole of a picture against every rectangle tried in Python, and pictures drawn by ImageMagick looked through. */
final class HoleReferenceTest extends TestCase
{
    private const BRUTE = <<<'PY'
        import json, sys
        for line in sys.stdin:
            rows = json.loads(line)
            best = None
            for top in range(len(rows)):
                for left in range(len(rows[0])):
                    for bottom in range(top + 1, len(rows) + 1):
                        for right in range(left + 1, len(rows[0]) + 1):
                            if all(set(row[left:right]) == {'.'} for row in rows[top:bottom]):
                                found = (-(bottom - top) * (right - left), top, left, left - right)
                                best = found if best is None or found < best else best
            print(json.dumps(None if best is None else [best[2], best[1], -best[3], best[0] // best[3]]))
        PY;

    public function testRandomPicturesHaveTheHoleThatPythonFinds(): void
    {
        $random = Make::random(77);
        $pictures = [];
        for ($n = 0; $n < Make::rounds(250); $n++) {
            [$width, $height, $dense] = [$random->getInt(1, 9), $random->getInt(1, 9), $random->getInt(1, 9)];
            $row = static fn (): string => implode('', array_map(static fn (): string => $random->getInt(0, 9) < $dense ? '.' : '#', range(1, $width)));
            $pictures[] = array_map(static fn (): string => $row(), range(1, $height));
        }
        $process = proc_open(['python3', '-c', self::BRUTE], [['pipe', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']], $pipes);
        self::assertIsResource($process);
        fwrite($pipes[0], implode("\n", array_map(static fn (array $rows): string => (string) json_encode($rows), $pictures)) . "\n");
        fclose($pipes[0]);
        $told = explode("\n", trim((string) stream_get_contents($pipes[1])));
        self::assertSame(0, proc_close($process));
        foreach ($pictures as $n => $rows) {
            $hole = Hole::largest(strtr(implode('', $rows), ['.' => "\0"]), Size::px(strlen($rows[0]), count($rows)));
            self::assertSame(json_decode($told[$n], true), $hole === null ? null : array_values($hole->toArray()), implode("\n", $rows));
        }
    }

    public function testAPictureDrawnByImageMagickIsLookedThrough(): void
    {
        $file = sys_get_temp_dir() . '/upper-pane-hole.png';
        // Beside the hole a part that is nearly transparent: one 255th is not none.
        $mask = "-size 64x40 xc:white -fill black -draw 'rectangle 10,8 29,27' -fill 'gray(1)' -draw 'rectangle 30,8 60,27'";
        exec("convert -size 64x40 xc:'#14665b' \\( $mask \\) -alpha off -compose CopyOpacity -composite PNG32:$file", $said, $code);
        self::assertSame(0, $code, implode("\n", $said));
        $media = Media::of('frame.png', Size::px(64, 40), null, 'frame');
        $hole = (new AlphaHoles(['frame' => (string) file_get_contents($file)]))->largest($media);
        unlink($file);
        self::assertSame([10, 8, 20, 20], $hole === null ? null : array_values($hole->toArray()));
        self::assertNull((new AlphaHoles(['frame' => 'no picture']))->largest($media));
        self::assertNull((new AlphaHoles([]))->largest($media));
    }
}
