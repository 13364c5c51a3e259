<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Time\Playlist;

/** What a design is: both are documents with revisions. */
enum DesignKind: string
{
    case Layout = 'layout';
    case Playlist = 'playlist';

    public static function ofPlural(string $plural): self
    {
        return self::from(rtrim($plural, 's'));
    }

    public function format(): string
    {
        return match ($this) {
            self::Layout => Layout::FORMAT,
            self::Playlist => Playlist::FORMAT,
        };
    }
}
