<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\Core\Data\Source;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Schedule\Schedule;

/** What a design is: all are documents with revisions. */
enum DesignKind: string
{
    case Layout = 'layout';
    case Playlist = 'playlist';
    case Schedule = 'schedule';
    /** Of data: it shows nothing by itself. */
    case Source = 'source';

    public static function ofPlural(string $plural): self
    {
        return self::from(rtrim($plural, 's'));
    }

    public function format(): string
    {
        return match ($this) {
            self::Layout => Layout::FORMAT,
            self::Playlist => Playlist::FORMAT,
            self::Schedule => Schedule::FORMAT,
            self::Source => Source::FORMAT,
        };
    }
}
