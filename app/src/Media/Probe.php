<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use Symfony\Component\Process\Process;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Media\Acceptable;

/** Finds out what a file really is, by its content (libmagic, ffprobe), and draws its thumbnail (ffmpeg, librsvg). */
final readonly class Probe
{
    private const PICTURES = ['image/png' => 'png', 'image/jpeg' => 'jpg', 'image/webp' => 'webp', 'image/svg+xml' => 'svg'];
    private const FILMS = ['video/mp4' => 'mp4', 'video/quicktime' => 'mp4', 'video/webm' => 'webm', 'video/x-matroska' => 'webm', 'video/x-m4v' => 'mp4'];
    private const EXTENSIONS = ['jpeg' => 'jpg', 'm4v' => 'mp4', 'mov' => 'mp4', 'mkv' => 'webm'];
    private const CODECS = ['h264', 'vp8', 'vp9', 'av1'];
    private const THUMBNAIL_PX = 480;
    private const PATIENCE_S = 120;

    /** @throws NotAcceptable with a sentence about $name */
    public function look(string $file, string $name): Probed
    {
        $type = (new \finfo(FILEINFO_MIME_TYPE))->file($file) ?: 'unknown';
        if ($type === 'text/xml' && preg_match('/<svg[\s>]/', (string) file_get_contents($file, false, null, 0, 4096)) === 1) {
            $type = 'image/svg+xml';
        }
        $extension = self::PICTURES[$type] ?? self::FILMS[$type] ?? null;
        if ($extension === null) {
            throw new NotAcceptable(sprintf(
                '"%s" is no picture or film; its content is %s. PNG, JPEG, WebP, SVG, MP4 and WebM can be brought in.',
                $name,
                $this->inWords($type),
            ));
        }
        $claimed = strtolower(pathinfo($name, PATHINFO_EXTENSION));
        $claimed = self::EXTENSIONS[$claimed] ?? $claimed;
        if ($claimed !== $extension) {
            throw new NotAcceptable(sprintf('"%s" says it is %s, but its content is %s. Give it its right name and bring it in again.', $name, $claimed === '' ? 'nothing' : ".$claimed", $type));
        }

        return match (true) {
            $type === 'image/svg+xml' => $this->drawing($file, $name),
            isset(self::PICTURES[$type]) => $this->picture($file, $name, $type, $extension),
            default => $this->film($file, $name, $extension),
        };
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

    private function picture(string $file, string $name, string $type, string $extension): Probed
    {
        $header = @getimagesize($file);
        if ($header === false || $header[0] < 1 || $header[1] < 1) {
            throw new NotAcceptable(sprintf('"%s" has no readable header: it is damaged. Export it again and bring it in anew.', $name));
        }
        $size = Size::px($header[0], $header[1]);
        $this->refuseRaster($size, $name);
        // A JPEG ends with its EOI marker (ITU-T T.81, B.1.1.3); decoders fill up what is missing in grey and say little.
        if ($type === 'image/jpeg' && !str_contains((string) file_get_contents($file, false, null, max(0, (int) filesize($file) - 4096)), "\xFF\xD9")) {
            throw new NotAcceptable(sprintf('"%s" is cut short: a part of the picture is missing. Export it again and bring it in anew.', $name));
        }

        return new Probed($type, $extension, $size, null);
    }

    private function film(string $file, string $name, string $extension): Probed
    {
        $process = new Process(['ffprobe', '-v', 'error', '-print_format', 'json', '-show_format', '-show_streams', $file], timeout: self::PATIENCE_S);
        $process->run();
        $found = json_decode($process->getOutput(), true);
        $streams = is_array($found) && is_array($found['streams'] ?? null) ? $found['streams'] : [];
        $whole = is_array($found) && is_array($found['format'] ?? null) ? ($found['format']['duration'] ?? null) : null;
        foreach ($streams as $stream) {
            if (!is_array($stream) || ($stream['codec_type'] ?? null) !== 'video' || (is_array($stream['disposition'] ?? null) && ($stream['disposition']['attached_pic'] ?? 0) === 1)) {
                continue;
            }
            $codec = is_string($stream['codec_name'] ?? null) ? $stream['codec_name'] : 'unknown';
            if (!in_array($codec, self::CODECS, true)) {
                throw new NotAcceptable(sprintf('"%s" is coded as %s; players show %s. Export it as H.264 and bring it in again.', $name, $codec, implode(', ', self::CODECS)));
            }
            $seconds = $stream['duration'] ?? $whole;
            $ms = is_numeric($seconds) ? (int) round((float) $seconds * 1000) : 0;
            if ($ms < 1 || !is_int($stream['width'] ?? null) || !is_int($stream['height'] ?? null) || $stream['width'] < 1 || $stream['height'] < 1) {
                throw new NotAcceptable(sprintf('"%s" does not say how long or how large it is: it is damaged or cut short.', $name));
            }
            $size = Size::px($stream['width'], $stream['height']);
            foreach (is_array($stream['side_data_list'] ?? null) ? $stream['side_data_list'] : [] as $side) {
                $turn = is_array($side) && is_numeric($side['rotation'] ?? null) ? (int) $side['rotation'] : 0;
                $size = $turn % 180 === 0 ? $size : $size->swapped();
            }
            $this->refuseRaster($size, $name);

            return new Probed('video/' . $extension, $extension, $size, $ms);
        }
        throw new NotAcceptable(sprintf('"%s" has no picture%s: there is nothing to show.', $name, $streams === [] ? '' : ', only sound'));
    }

    private function drawing(string $file, string $name): Probed
    {
        $svg = (string) file_get_contents($file);
        $document = new \DOMDocument();
        if (stripos($svg, '<!ENTITY') !== false || !@$document->loadXML($svg, LIBXML_NONET) || $document->documentElement?->localName !== 'svg') {
            throw new NotAcceptable(sprintf('"%s" is no well-formed SVG drawing.', $name));
        }
        foreach ($document->getElementsByTagName('*') as $element) {
            if (in_array(strtolower((string) $element->localName), ['script', 'foreignobject', 'iframe', 'handler'], true)) {
                throw new NotAcceptable(sprintf('"%s" carries a <%s>: drawings with programs in them are not taken. Export it without.', $name, $element->localName));
            }
            foreach ($element->attributes as $attribute) {
                $value = trim($attribute->value);
                if (str_starts_with(strtolower((string) $attribute->localName), 'on') || preg_match('/^\s*(javascript|vbscript):/i', $value) === 1) {
                    throw new NotAcceptable(sprintf('"%s" carries a program in the attribute "%s": drawings with programs in them are not taken.', $name, $attribute->localName));
                }
                if ($attribute->localName === 'href' && $value !== '' && !str_starts_with($value, '#') && !str_starts_with($value, 'data:image/')) {
                    throw new NotAcceptable(sprintf('"%s" refers to another file (%s): embed it and bring the drawing in again.', $name, mb_strimwidth($value, 0, 60, '...')));
                }
            }
        }
        $size = self::drawnSize($document->documentElement);
        if ($size === null) {
            throw new NotAcceptable(sprintf('"%s" says neither width and height in px nor a viewBox.', $name));
        }
        $this->refuseRaster($size, $name);

        return new Probed('image/svg+xml', 'svg', $size, null);
    }

    private static function drawnSize(\DOMElement $svg): ?Size
    {
        $px = static fn (string $value): ?int => preg_match('/^(\d+(?:\.\d+)?)(px)?$/D', trim($value), $m) === 1 ? (int) round((float) $m[1]) : null;
        [$width, $height] = [$px($svg->getAttribute('width')), $px($svg->getAttribute('height'))];
        if ($width === null || $height === null) {
            $box = preg_split('/[\s,]+/', trim($svg->getAttribute('viewBox'))) ?: [];
            [$width, $height] = count($box) === 4 ? [(int) round((float) $box[2]), (int) round((float) $box[3])] : [0, 0];
        }

        return $width >= 1 && $height >= 1 && $width <= Size::LONGEST && $height <= Size::LONGEST ? Size::px($width, $height) : null;
    }

    private function refuseRaster(Size $size, string $name): void
    {
        $refusal = Acceptable::refusal($size);
        if ($refusal !== null) {
            throw new NotAcceptable(sprintf('"%s" is too large. %s', $name, $refusal));
        }
    }

    private function inWords(string $type): string
    {
        return match (true) {
            $type === 'text/x-php', str_contains($type, 'script') => "a program ($type)",
            str_starts_with($type, 'text/') => "text ($type)",
            str_starts_with($type, 'audio/') => "sound alone ($type)",
            $type === 'application/x-empty', $type === 'inode/x-empty' => 'empty',
            default => $type,
        };
    }
}
