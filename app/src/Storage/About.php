<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

/** Which thing is meant, and what it is called. */
final readonly class About
{
    /** @param 'layout'|'filled'|'playlist'|'schedule'|'source'|'style'|'overlay'|'trigger'|'panel'|'media'|'display'|'place'|'face'|'division' $kind */
    public function __construct(public string $kind, public string $id, public string $name)
    {
    }
}
