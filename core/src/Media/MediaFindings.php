<?php

declare(strict_types=1);

namespace UpperPane\Core\Media;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;

/** What is found in media that were brought in and cannot be played. */
final readonly class MediaFindings
{
    /** @return list<Explanation> of what is found here */
    public static function explained(): array
    {
        return [
            new Explanation('media.refused', 'warning', 'a file that was brought in is none that players play; says why', 'it can be put nowhere', 'arithmetic'),
            new Explanation('media.failed', 'warning', 'a file could not be looked into, through no fault of its own; says why', 'it can be tried again', 'arithmetic'),
        ];
    }

    /** It is none that players play. */
    public static function refused(string $name, ?string $why): Finding
    {
        return new Finding('media.refused', Level::Warning, [], $why ?? "$name was refused.");
    }

    /** It could not be looked into. */
    public static function failed(string $name, ?string $why): Finding
    {
        return new Finding('media.failed', Level::Warning, [], "$name: " . ($why ?? 'It could not be looked into.'));
    }
}
