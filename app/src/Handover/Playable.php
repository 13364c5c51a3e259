<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\App\Layout\Design;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;

/** What is handed over: a layout, or a picture, film or playlist that takes the whole of each display. */
final readonly class Playable
{
    /**
     * @param 'layout'|'playlist'|'media'|'schedule' $kind
     * @param ?int $revision of a layout or playlist
     * @param \Closure(Size): Composed $composed for a raster
     * @param ?Design $schedule in place of a layout: what each display plays by the schedules that rule there
     */
    public function __construct(
        public string $kind,
        public string $id,
        public ?int $revision,
        public string $name,
        public \Closure $composed,
        public ?Design $schedule = null,
    ) {
    }
}
