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
        $file = $request->files->get('file');
        if (!$file instanceof UploadedFile || !$file->isValid()) {
            throw new Problem(400, 'upload.broken', $file instanceof UploadedFile ? $file->getErrorMessage() : 'No file came with the request, or it is larger than 2 GB.');
        }
        $name = trim(basename(str_replace('\\', '/', $file->getClientOriginalName())));

        return new self($file, mb_strimwidth($name === '' ? 'unnamed' : $name, 0, 200, ''));
    }
}
