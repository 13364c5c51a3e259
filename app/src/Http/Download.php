<?php

declare(strict_types=1);

namespace UpperPane\App\Http;

use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;

/** Bytes that a browser keeps as a file. */
final readonly class Download
{
    public static function of(string $bytes, string $type, string $name): Response
    {
        $plain = (string) preg_replace('/[^\x20-\x7e]|[%\/\\\\]/', '_', $name);

        return new Response($bytes, 200, [
            'Content-Type' => $type,
            'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, strtr($name, ['/' => '_', '\\' => '_']), $plain),
        ]);
    }
}
