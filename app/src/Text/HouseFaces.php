<?php

declare(strict_types=1);

namespace UpperPane\App\Text;

use League\Flysystem\FilesystemOperator;
use Symfony\Component\DependencyInjection\Attribute\Target;
use UpperPane\App\Media\Publisher;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Text\FaceFile;

/**
 * The type faces that designs may be set in, published once.
 *
 * The composer, the thumbnails and the players all load the same file.
 *
 * @phpstan-type Face array{family: string, weight: int, url: string, sha256: string, bytes: int, cap_share?: float, id?: string, brought_in_by?: ?string}
 */
final readonly class HouseFaces
{
    private const INDEX = 'faces.json';

    public function __construct(
        private string $projectDir,
        #[Target('published')]
        private FilesystemOperator $published,
        private Publisher $publisher,
        private BroughtFaces $brought,
    ) {
    }

    public function publish(): int
    {
        $faces = [];
        foreach (FaceFiles::in($this->projectDir) as ['family' => $family, 'weight' => $weight, 'file' => $local]) {
            [$path, $sha256] = $this->publisher->file($local, 'ttf');
            $faces[] = [
                'family' => $family,
                'weight' => $weight,
                'url' => '/' . $path,
                'sha256' => $sha256,
                'bytes' => (int) filesize($local),
                'cap_share' => FaceFile::fromBytes((string) file_get_contents($local))->capShare ?? Legibility::CAP_SHARE,
            ];
        }
        $this->publisher->replace(self::INDEX, json_encode($faces, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES));

        return count($faces);
    }

    /** @return list<Face> those of the house, then those that were brought in */
    public function all(): array
    {
        return [...$this->own(), ...array_map(static fn (BroughtFace $face): array => $face->toArray(), $this->brought->all())];
    }

    /** Who measures them all: the files of the house as they lie here, the others as they were published. */
    public function measured(): HarfBuzz
    {
        $brought = array_map(fn (BroughtFace $face): array => [
            'family' => $face->family,
            'weight' => $face->weight,
            'read' => fn (): string => $this->published->read($face->file),
        ], $this->brought->all());

        return new HarfBuzz([...FaceFiles::in($this->projectDir), ...$brought]);
    }

    /** @return list<Face> */
    private function own(): array
    {
        if (!$this->published->fileExists(self::INDEX)) {
            return [];
        }
        $faces = json_decode($this->published->read(self::INDEX), true, flags: JSON_THROW_ON_ERROR);

        /** @var list<Face> $faces */
        return $faces;
    }

    /** @return array<string, float> height of a capital over the size of the type, by `family weight` */
    public function capShares(): array
    {
        $shares = [];
        foreach ($this->all() as $face) {
            $shares["{$face['family']} {$face['weight']}"] = $face['cap_share'] ?? Legibility::CAP_SHARE;
        }

        return $shares;
    }
}
