<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use League\Flysystem\FilesystemOperator;
use Symfony\Component\DependencyInjection\Attribute\Target;

/** The bytes of what was fetched or brought in, by their hash; nobody but the application reads them. */
final readonly class SourceFiles
{
    /** A file that was written just now may not be named yet. */
    private const GRACE_S = 3_600;

    public function __construct(#[Target('sources')] private FilesystemOperator $files)
    {
    }

    /** @return string SHA-256 in hex */
    public function keep(string $bytes): string
    {
        $sha256 = hash('sha256', $bytes);
        $path = self::path($sha256);
        if (!$this->files->fileExists($path)) {
            $part = $path . '.' . bin2hex(random_bytes(8)) . '.part';
            $this->files->write($part, (string) gzencode($bytes, 6));
            $this->files->move($part, $path);
        }

        return $sha256;
    }

    /** Null for what is not kept any more, or damaged. */
    public function read(string $sha256): ?string
    {
        $path = self::path($sha256);
        $bytes = $this->files->fileExists($path) ? @gzdecode($this->files->read($path)) : false;

        return $bytes !== false && hash('sha256', $bytes) === $sha256 ? $bytes : null;
    }

    /**
     * Takes away what nobody names.
     *
     * @param list<string> $named hashes
     */
    public function prune(array $named, int $nowS): void
    {
        $kept = array_fill_keys(array_map(self::path(...), $named), true);
        foreach ($this->files->listContents('', true) as $file) {
            if ($file->isFile() && !isset($kept[$file->path()]) && $nowS - ($file->lastModified() ?? $nowS) > self::GRACE_S) {
                $this->files->delete($file->path());
            }
        }
    }

    private static function path(string $sha256): string
    {
        return substr($sha256, 0, 2) . "/$sha256.gz";
    }
}
