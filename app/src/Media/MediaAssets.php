<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use UpperPane\App\Storage\Reached;

/**
 * Pictures and films that were brought in.
 *
 * @extends Reached<MediaAsset>
 */
final readonly class MediaAssets extends Reached
{
    protected static function entity(): string
    {
        return MediaAsset::class;
    }

    protected static function kind(): string
    {
        return 'media';
    }

    protected static function unknown(): string
    {
        return 'and there is no media of that id';
    }

    /** @return list<MediaAsset> that somebody brought in, the last first */
    public function all(): array
    {
        return $this->asked($this->within('x')->andWhere('x.ofSource IS NULL')->orderBy('x.broughtInAt', 'DESC')->addOrderBy('x.id', 'DESC'));
    }
}
