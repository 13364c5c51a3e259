<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use Doctrine\ORM\EntityManagerInterface;
use League\Flysystem\FilesystemException;
use League\Flysystem\FilesystemOperator;
use Symfony\Component\DependencyInjection\Attribute\Target;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Media\Swatch;
use UpperPane\Core\Media\Swatches;

/** The colours of media, read once from their small pictures, by GD. */
final class LookedAt implements Swatches
{
    /** Columns of a swatch: coarser than any letter, finer than what a letter stands on. */
    private const COLUMNS = 160;

    /** @var array<string, ?Swatch> by media id */
    private array $known = [];

    public function __construct(
        private readonly EntityManagerInterface $entities,
        #[Target('published')]
        private readonly FilesystemOperator $published,
    ) {
    }

    public function of(Media $media): ?Swatch
    {
        if ($media->id === null) {
            return null;
        }
        if (!array_key_exists($media->id, $this->known)) {
            $asset = $this->entities->find(MediaAsset::class, $media->id);
            $this->known[$media->id] = $asset?->thumbnail === null ? null : $this->swatch($asset->thumbnail);
        }

        return $this->known[$media->id];
    }

    private function swatch(string $thumbnail): ?Swatch
    {
        $kept = "$thumbnail.swatch";
        try {
            if ($this->published->fileExists($kept)) {
                $bytes = $this->published->read($kept);

                return Swatch::of(self::word($bytes, 0), self::word($bytes, 2), substr($bytes, 4));
            }
            $bytes = self::colours($this->published->read($thumbnail));
            if ($bytes === null) {
                return null;
            }
            $this->published->write($kept, $bytes);

            return Swatch::of(self::word($bytes, 0), self::word($bytes, 2), substr($bytes, 4));
        } catch (FilesystemException | \InvalidArgumentException) {
            return null;
        }
    }

    /** Columns and rows as 16 bit each, then red, green, blue and alpha of each. */
    private static function colours(string $file): ?string
    {
        $picture = @imagecreatefromstring($file);
        if ($picture === false) {
            return null;
        }
        $columns = min(self::COLUMNS, imagesx($picture));
        $rows = max(1, (int) round(imagesy($picture) * $columns / imagesx($picture)));
        $small = imagecreatetruecolor($columns, $rows);
        if ($small === false) {
            return null;
        }
        imagealphablending($small, false);
        imagecopyresampled($small, $picture, 0, 0, 0, 0, $columns, $rows, imagesx($picture), imagesy($picture));
        $bytes = pack('nn', $columns, $rows);
        for ($y = 0; $y < $rows; $y++) {
            for ($x = 0; $x < $columns; $x++) {
                $colour = (int) imagecolorat($small, $x, $y);
                $bytes .= chr($colour >> 16 & 255) . chr($colour >> 8 & 255) . chr($colour & 255) . chr((int) round((127 - ($colour >> 24 & 127)) * 255 / 127));
            }
        }

        return $bytes;
    }

    private static function word(string $bytes, int $at): int
    {
        return ord($bytes[$at]) << 8 | ord($bytes[$at + 1]);
    }
}
