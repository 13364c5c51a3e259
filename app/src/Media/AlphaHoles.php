<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use UpperPane\Core\Geometry\Hole;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Media\Holes;
use UpperPane\Core\Media\Media;

/** Looks through pictures whose bytes are at hand: ffmpeg says how transparent each px is, to a 255th. */
final readonly class AlphaHoles implements Holes
{
    /** @param array<string> $pictures bytes by the id of the media, or its name */
    public function __construct(private array $pictures)
    {
    }

    public function largest(Media $picture): ?Rect
    {
        $bytes = $this->pictures[$picture->id ?? $picture->name] ?? $this->pictures[$picture->name] ?? null;
        $alpha = $bytes === null ? null : self::alpha($bytes);

        return $alpha === null || strlen($alpha) !== $picture->size->area() ? null : Hole::largest($alpha, $picture->size);
    }

    /** @return ?string a byte for each px; null where it cannot be read */
    private static function alpha(string $bytes): ?string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'upper-pane-alpha');
        try {
            file_put_contents($file, $bytes);
            $command = ['ffmpeg', '-v', 'error', '-nostdin', '-i', $file, '-frames:v', '1', '-vf', 'format=rgba,alphaextract', '-f', 'rawvideo', '-pix_fmt', 'gray', '-'];
            $process = proc_open($command, [['file', '/dev/null', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']], $pipes);
            if (!is_resource($process)) {
                return null;
            }
            $alpha = stream_get_contents($pipes[1]);
            fclose($pipes[1]);

            return proc_close($process) === 0 && is_string($alpha) ? $alpha : null;
        } finally {
            @unlink($file);
        }
    }
}
