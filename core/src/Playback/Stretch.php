<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Units\Instant;

/** What one thing shows in [from, to), Unix ms: the whole display, or one of its zones. */
final readonly class Stretch
{
    /**
     * @param ?string $zone null for the whole display; `side/main` for a zone of what is booked in a zone; of an overlay its id
     * @param 'layout'|'playlist'|'media'|'item'|'rows'|'nothing'|'overlay' $kind of what plays
     * @param string $id of the design, the media or the item
     * @param ?string $booking id of the booking that plays it
     */
    public function __construct(
        public int $fromMs,
        public int $toMs,
        public ?string $zone,
        public string $kind,
        public string $id,
        public string $name,
        public ?string $booking,
        public string $why,
    ) {
    }

    /** @return array{from: string, to: string, zone: ?string, kind: string, id: string, name: string, booking: ?string, why: string} */
    public function toArray(): array
    {
        return [
            'from' => (string) Instant::ofMs($this->fromMs),
            'to' => (string) Instant::ofMs($this->toMs),
            'zone' => $this->zone,
            'kind' => $this->kind,
            'id' => $this->id,
            'name' => $this->name,
            'booking' => $this->booking,
            'why' => $this->why,
        ];
    }
}
