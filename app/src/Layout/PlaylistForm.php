<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Playback\Programme;

final readonly class PlaylistForm implements DesignForm
{
    /** px, where it is looked at apart from a display */
    private const RASTER = [1920, 1080];

    public function __construct(private DesignLibrary $library)
    {
    }

    public static function kind(): DesignKind
    {
        return DesignKind::Playlist;
    }

    public static function rules(): bool
    {
        return false;
    }

    public function check(array $document): void
    {
        $this->drawn($document);
    }

    public function drawn(array $document, ?Size $raster = null): Composed
    {
        return $this->library->fullScreen($document, $raster ?? Size::px(...self::RASTER));
    }

    public function plays(DesignLibrary $library, Display $display, array $documents): Programme
    {
        return Programme::endless($library->fullScreen($documents[0], $display->raster()), $display->timezone);
    }
}
