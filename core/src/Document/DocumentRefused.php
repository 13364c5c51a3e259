<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

use UpperPane\Core\UpperPaneError;

/**
 * A document that cannot be read: what is wrong, with which value, where, and what would be right.
 *
 * `path` is an RFC 6901 JSON Pointer to the fault, or for a missing field to where it should stand.
 */
final class DocumentRefused extends \DomainException implements UpperPaneError
{
    private function __construct(
        public readonly string $reason,
        string $message,
        public readonly string $path,
    ) {
        parent::__construct($message);
    }

    /** @param string $reason a dotted code such as `field.missing` */
    public static function because(string $reason, string $message, string $path): self
    {
        return new self($reason, $message, $path);
    }

    /** The same fault seen from a document that contains this one at $prefix. */
    public function under(string $prefix): self
    {
        return new self($this->reason, $this->getMessage(), $prefix . $this->path);
    }

    /** @return array{error: array{code: string, message: string, path: string}} */
    public function toArray(): array
    {
        return ['error' => ['code' => $this->reason, 'message' => $this->getMessage(), 'path' => $this->path]];
    }
}
