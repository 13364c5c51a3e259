<?php

declare(strict_types=1);

namespace UpperPane\App\Http;

use Symfony\Component\HttpFoundation\JsonResponse;

/** Something the application does not do: what happened, and what to do, in the shape of the core's refusals. */
final class Problem extends \RuntimeException
{
    /** @param array<string, mixed> $more */
    public function __construct(
        public readonly int $status,
        public readonly string $reason,
        string $message,
        public readonly string $path = '',
        public readonly array $more = [],
    ) {
        parent::__construct($message);
    }

    public static function notFound(string $what): self
    {
        return new self(404, 'not.found', $what . ' is not there, or no longer.');
    }

    /** @param array<string, mixed> $more */
    public static function answer(int $status, string $reason, string $message, string $path = '', array $more = []): JsonResponse
    {
        return new JsonResponse(['error' => ['code' => $reason, 'message' => $message, 'path' => $path]] + $more, $status);
    }
}
