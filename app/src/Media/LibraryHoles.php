<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use Doctrine\ORM\EntityManagerInterface;
use League\Flysystem\FilesystemException;
use League\Flysystem\FilesystemOperator;
use Symfony\Component\DependencyInjection\Attribute\Target;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Media\Holes;
use UpperPane\Core\Media\Media;

/** Looks through the pictures of the library, each once: what was found is kept beside the file. */
final class LibraryHoles implements Holes
{
    /** @var array<string, ?Rect> by media id */
    private array $known = [];

    public function __construct(
        private readonly EntityManagerInterface $entities,
        #[Target('published')]
        private readonly FilesystemOperator $published,
    ) {
    }

    public function largest(Media $picture): ?Rect
    {
        if ($picture->id === null) {
            return null;
        }
        if (!array_key_exists($picture->id, $this->known)) {
            $file = $this->entities->find(MediaAsset::class, $picture->id)?->file;
            $this->known[$picture->id] = $file === null ? null : $this->looked($picture, $file);
        }

        return $this->known[$picture->id];
    }

    private function looked(Media $picture, string $file): ?Rect
    {
        $kept = "$file.hole";
        try {
            if ($this->published->fileExists($kept)) {
                [$x, $y, $width, $height] = [...array_map(intval(...), explode(' ', $this->published->read($kept))), 0, 0, 0, 0];

                return $width > 0 ? Rect::at($x, $y, $width, $height) : null;
            }
            $hole = (new AlphaHoles([$picture->id ?? '' => $this->published->read($file)]))->largest($picture);
            $this->published->write($kept, implode(' ', $hole === null ? [0, 0, 0, 0] : array_values($hole->toArray())));

            return $hole;
        } catch (FilesystemException) {
            return null;
        }
    }
}
