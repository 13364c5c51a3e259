<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use League\Flysystem\FilesystemOperator;
use Symfony\Component\DependencyInjection\Attribute\Target;

/** Writes what the web server hands out: content-addressed files that never change, and small files that are replaced whole. */
final readonly class Publisher
{
    public function __construct(#[Target('published')] private FilesystemOperator $published)
    {
    }

    /** @return array{string, string} path below the web root, and SHA-256 in hex */
    public function file(string $local, string $extension): array
    {
        $sha256 = (string) hash_file('sha256', $local);
        $path = self::path('files', $sha256, $extension);
        if (!$this->published->fileExists($path)) {
            $stream = fopen($local, 'r') ?: throw new \RuntimeException("$local cannot be read.");
            $this->moved($path, fn (string $part) => $this->published->writeStream($part, $stream));
        }

        return [$path, $sha256];
    }

    /** @return array{string, string} path below the web root, and SHA-256 in hex */
    public function content(string $folder, string $content, string $extension): array
    {
        $sha256 = hash('sha256', $content);
        $path = self::path($folder, $sha256, $extension);
        if (!$this->published->fileExists($path)) {
            $this->replace($path, $content);
        }

        return [$path, $sha256];
    }

    /** Replaces a file at once: whoever reads it sees the old or the new one, never a half. */
    public function replace(string $path, string $content): void
    {
        $this->moved($path, fn (string $part) => $this->published->write($part, $content));
    }

    /**
     * @param \Closure(string): void $write under a name that nobody else writes to; what is left half-made is taken away
     */
    private function moved(string $path, \Closure $write): void
    {
        $part = $path . '.' . bin2hex(random_bytes(8)) . '.part';
        try {
            $write($part);
            $this->published->move($part, $path);
        } catch (\Throwable $e) {
            $this->published->delete($part);
            throw $e;
        }
    }

    private static function path(string $folder, string $sha256, string $extension): string
    {
        return sprintf('%s/%s/%s.%s', $folder, substr($sha256, 0, 2), $sha256, $extension);
    }
}
