<?php

declare(strict_types=1);

namespace UpperPane\App\Http;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;

/** The one file that came with a request, and the name that it had where it came from, without any folders. */
final readonly class Upload
{
    private function __construct(public UploadedFile $file, public string $name)
    {
    }

    /** @throws Problem where none came, or not all of it */
    public static function of(Request $request): self
    {
        $type = (string) $request->headers->get('Content-Type');
        if (!$request->files->has('file') && $type !== '' && !str_starts_with($type, 'multipart/form-data')) {
            throw new Problem(415, 'type.not-form', sprintf('A file is sent here as a form (multipart/form-data), in its field "file"; this came as %s.', mb_strimwidth($type, 0, 60, '...')));
        }
        $file = $request->files->get('file');
        if (!$file instanceof UploadedFile || !$file->isValid()) {
            throw new Problem(400, 'upload.broken', $file instanceof UploadedFile ? $file->getErrorMessage() : 'No file came with the request, or it is larger than 2 GB.');
        }
        $name = trim(basename(str_replace('\\', '/', $file->getClientOriginalName())));

        return new self($file, mb_strimwidth($name === '' ? 'unnamed' : $name, 0, 200, ''));
    }
}
