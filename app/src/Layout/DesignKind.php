<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\Core\Data\Source;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Style\HouseStyle;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Panel\Panel;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Trigger\TriggerMap;

/** What a design is: all are documents with revisions. */
enum DesignKind: string
{
    case Layout = 'layout';
    case Playlist = 'playlist';
    case Schedule = 'schedule';
    /** Of data: it shows nothing by itself. */
    case Source = 'source';
    /** Filled into a template: a layout wherever something plays it. */
    case Filled = 'filled';
    /** Named colours, faces, sizes and marks: it shows nothing by itself. */
    case Style = 'style';
    /** It lies above whatever a display plays. */
    case Overlay = 'overlay';
    /** What happens when somebody comes near, presses, or a value changes, above whatever a display plays. */
    case Trigger = 'trigger';
    /** Keys for an operator: it shows nothing by itself. */
    case Panel = 'panel';

    public static function ofPlural(string $plural): self
    {
        return self::from(rtrim($plural, 's'));
    }

    public static function ofFormat(string $format): ?self
    {
        return array_values(array_filter(self::cases(), static fn (self $kind): bool => $kind->format() === $format))[0] ?? null;
    }

    /** @return list<string> */
    public static function names(): array
    {
        return array_map(static fn (self $kind): string => $kind->value, self::cases());
    }

    /** @return list<self> what something may be that is named as one of these where it plays */
    public static function playedAs(string $kind): array
    {
        return $kind === self::Layout->value ? [self::Layout, self::Filled] : array_filter([self::tryFrom($kind)]);
    }

    public function format(): string
    {
        return match ($this) {
            self::Layout => Layout::FORMAT,
            self::Playlist => Playlist::FORMAT,
            self::Schedule => Schedule::FORMAT,
            self::Source => Source::FORMAT,
            self::Filled => Filled::FORMAT,
            self::Style => HouseStyle::FORMAT,
            self::Overlay => Overlay::FORMAT,
            self::Trigger => TriggerMap::FORMAT,
            self::Panel => Panel::FORMAT,
        };
    }
}
