<?php

declare(strict_types=1);

namespace UpperPane\Core\Media;

use UpperPane\Core\Geometry\Size;

/** What a player can be asked to show: types, codecs and rasters. */
final readonly class Acceptable
{
    /** Common practice, no source: textures of 16,384 px and pictures of 100 Mpx are decoded everywhere. */
    public const LONGEST_SIDE = 16_384;
    public const MOST_PIXELS = 100_000_000;

    /** Picture types and how their files end. */
    public const PICTURES = ['image/png' => 'png', 'image/jpeg' => 'jpg', 'image/webp' => 'webp', 'image/svg+xml' => 'svg'];

    /** Film types and how their files end: ISO base media (ISO/IEC 14496-12) and WebM, and containers that are one of them. */
    public const FILMS = ['video/mp4' => 'mp4', 'video/quicktime' => 'mp4', 'video/x-m4v' => 'mp4', 'video/webm' => 'webm', 'video/x-matroska' => 'webm'];

    /** Codecs that browsers decode without paid parts. Common practice, no source. */
    public const CODECS = ['h264', 'vp8', 'vp9', 'av1'];

    private const OTHER_ENDINGS = ['jpeg' => 'jpg', 'm4v' => 'mp4', 'mov' => 'mp4', 'mkv' => 'webm'];

    /**
     * How a file of this content and name ends in the house.
     *
     * @param string $type media type of its content, as libmagic tells it
     * @throws NotAcceptable
     */
    public static function extension(string $type, string $name): string
    {
        $extension = self::PICTURES[$type] ?? self::FILMS[$type] ?? null;
        if ($extension === null) {
            throw new NotAcceptable(sprintf('is no picture or film; its content is %s. PNG, JPEG, WebP, SVG, MP4 and WebM can be brought in.', self::inWords($type)));
        }
        $claimed = strtolower(pathinfo($name, PATHINFO_EXTENSION));
        $claimed = self::OTHER_ENDINGS[$claimed] ?? $claimed;
        if ($claimed !== $extension) {
            throw new NotAcceptable(sprintf('says it is %s, but its content is %s. Give it its right name and bring it in again.', $claimed === '' ? 'nothing' : ".$claimed", $type));
        }

        return $extension;
    }

    /** @throws NotAcceptable unless players decode it */
    public static function codec(string $codec): void
    {
        if (!in_array($codec, self::CODECS, true)) {
            throw new NotAcceptable(sprintf('is coded as %s; players show %s. Export it as H.264 and bring it in again.', $codec, implode(', ', self::CODECS)));
        }
    }

    /** @throws NotAcceptable where it is too large */
    public static function raster(Size $size): void
    {
        if (max($size->width, $size->height) > self::LONGEST_SIDE) {
            throw new NotAcceptable(sprintf('is too large. It is %s px; no side may be longer than %s px. Bring in a smaller version.', $size, number_format(self::LONGEST_SIDE)));
        }
        if ($size->area() > self::MOST_PIXELS) {
            throw new NotAcceptable(sprintf(
                'is too large. It has %.0f million pixels; %.0f million are the most. Bring in a smaller version.',
                $size->area() / 1e6,
                self::MOST_PIXELS / 1e6,
            ));
        }
    }

    private static function inWords(string $type): string
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
