<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Waits for media to be looked into. */
#[AutoconfigureTag]
interface Awaiting
{
    /** One was looked into: it is ready, or refused, or nobody can tell. */
    public function looked(MediaAsset $asset): void;
}
