<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Layout;

/** What is handed over: a layout, or a picture, film or playlist that takes the whole of each display. */
final readonly class Source
{
    /**
     * @param 'layout'|'playlist'|'media' $kind
     * @param ?int $revision of a layout or playlist
     * @param \Closure(Size): Layout $layout for a raster
     */
    public function __construct(
        public string $kind,
        public string $id,
        public ?int $revision,
        public string $name,
        public \Closure $layout,
    ) {
    }
}
