<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use Symfony\Component\Process\Process;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Media\Acceptable;
use UpperPane\Core\Media\Drawing;
use UpperPane\Core\Media\NotAcceptable;

/** Finds out what a file really is, by its content (libmagic, ffprobe), and draws its thumbnail (ffmpeg, librsvg). */
final readonly class Probe
{
    private const THUMBNAIL_PX = 480;
    private const PATIENCE_S = 120;

    /** @throws NotAcceptable with a sentence about $name */
    public function look(string $file, string $name): Probed
    {
        $type = (new \finfo(FILEINFO_MIME_TYPE))->file($file) ?: 'unknown';
        if ($type === 'text/xml' && preg_match('/<svg[\s>]/', (string) file_get_contents($file, false, null, 0, 4096)) === 1) {
            $type = 'image/svg+xml';
        }
        try {
            $extension = Acceptable::extension($type, $name);

            return match (true) {
                $type === 'image/svg+xml' => new Probed($type, $extension, Drawing::size((string) file_get_contents($file)), null),
                isset(Acceptable::PICTURES[$type]) => $this->picture($file, $type, $extension),
                default => $this->film($file, $extension),
            };
        } catch (NotAcceptable $e) {
            throw new NotAcceptable(sprintf('"%s" %s', $name, $e->getMessage()));
        }
    }

    /** Draws the thumbnail into $target, a PNG; decoding all of a picture also shows whether it is whole. */
    public function thumbnail(string $file, string $name, Probed $probed, string $target): void
    {
        $scale = sprintf("scale='min(%d,iw)':-1:flags=area", self::THUMBNAIL_PX);
        $command = match (true) {
            $probed->type === 'image/svg+xml' => ['rsvg-convert', '--width', (string) self::THUMBNAIL_PX, '--keep-aspect-ratio', '--output', $target, $file],
            $probed->lengthMs === null => ['ffmpeg', '-v', 'error', '-xerror', '-nostdin', '-y', '-i', $file, '-vf', $scale, '-frames:v', '1', '-f', 'image2', $target],
            default => [
                'ffmpeg', '-v', 'error', '-nostdin', '-y', '-ss', sprintf('%.3f', min(1.0, $probed->lengthMs / 3000)),
                '-i', $file, '-vf', $scale, '-frames:v', '1', '-f', 'image2', $target,
            ],
        };
        $process = new Process($command, timeout: self::PATIENCE_S);
        $process->run();
        $complaint = trim($process->getErrorOutput());
        if (!$process->isSuccessful() || !is_file($target) || ($probed->lengthMs === null && $complaint !== '')) {
            throw new NotAcceptable(sprintf('"%s" is damaged or cut short: it cannot be decoded to its end. Export it again and bring it in anew.', $name));
        }
    }

    private function picture(string $file, string $type, string $extension): Probed
    {
        $header = @getimagesize($file);
        if ($header === false || $header[0] < 1 || $header[1] < 1) {
            throw new NotAcceptable('has no readable header: it is damaged. Export it again and bring it in anew.');
        }
        $size = Size::px($header[0], $header[1]);
        // Orientations 5 to 8 lie on their side (Exif 2.32, tag 274); browsers, and so players, draw them upright.
        $exif = $type === 'image/jpeg' ? @exif_read_data($file) : false;
        $size = $exif !== false && in_array($exif['Orientation'] ?? 1, [5, 6, 7, 8], true) ? $size->swapped() : $size;
        Acceptable::raster($size);
        // A JPEG ends with its EOI marker (ITU-T T.81, B.1.1.3); decoders fill up what is missing in grey and say little.
        if ($type === 'image/jpeg' && !str_contains((string) file_get_contents($file, false, null, max(0, (int) filesize($file) - 4096)), "\xFF\xD9")) {
            throw new NotAcceptable('is cut short: a part of the picture is missing. Export it again and bring it in anew.');
        }

        return new Probed($type, $extension, $size, null);
    }

    private function film(string $file, string $extension): Probed
    {
        $process = new Process([...FilmFacts::COMMAND, $file], timeout: self::PATIENCE_S);
        $process->run();
        $film = FilmFacts::of($process->getOutput());

        return new Probed('video/' . $extension, $extension, $film->size, $film->lengthMs);
    }
}
