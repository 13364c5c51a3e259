<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Media\Acceptable;
use UpperPane\Core\Media\NotAcceptable;

/** What ffprobe says of a film: how large it is as it is seen, and how long. */
final readonly class FilmFacts
{
    /** The command that says it, but for the file. */
    public const COMMAND = ['ffprobe', '-v', 'error', '-print_format', 'json', '-show_format', '-show_streams'];

    private function __construct(public Size $size, public int $lengthMs)
    {
    }

    /**
     * @param string $said by the command, JSON
     * @throws NotAcceptable with a sentence about the film
     */
    public static function of(string $said): self
    {
        $found = json_decode($said, true);
        $streams = is_array($found) && is_array($found['streams'] ?? null) ? $found['streams'] : [];
        $whole = is_array($found) && is_array($found['format'] ?? null) ? ($found['format']['duration'] ?? null) : null;
        foreach ($streams as $stream) {
            if (!is_array($stream) || ($stream['codec_type'] ?? null) !== 'video' || (is_array($stream['disposition'] ?? null) && ($stream['disposition']['attached_pic'] ?? 0) === 1)) {
                continue;
            }
            $codec = is_string($stream['codec_name'] ?? null) ? $stream['codec_name'] : 'unknown';
            Acceptable::codec($codec);
            $seconds = $stream['duration'] ?? $whole;
            $ms = is_numeric($seconds) ? (int) round((float) $seconds * 1000) : 0;
            if ($ms < 1 || !is_int($stream['width'] ?? null) || !is_int($stream['height'] ?? null) || $stream['width'] < 1 || $stream['height'] < 1) {
                throw new NotAcceptable('does not say how long or how large it is: it is damaged or cut short.');
            }
            $size = Size::px($stream['width'], $stream['height']);
            foreach (is_array($stream['side_data_list'] ?? null) ? $stream['side_data_list'] : [] as $side) {
                $turn = is_array($side) && is_numeric($side['rotation'] ?? null) ? (int) $side['rotation'] : 0;
                $size = $turn % 180 === 0 ? $size : $size->swapped();
            }
            Acceptable::raster($size);

            return new self($size, $ms);
        }
        throw new NotAcceptable(sprintf('has no picture%s: there is nothing to show.', $streams === [] ? '' : ', only sound'));
    }
}
