<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

use UpperPane\Core\UpperPaneError;

/**
 * Something that is not done: what is wrong, with which value, where, and what would be right. Each cause has a class of its own.
 *
 * `path` is an RFC 6901 JSON Pointer to the fault, or for a missing field to where it should stand.
 */
abstract class Refused extends \DomainException implements UpperPaneError
{
    final protected function __construct(public readonly Reason $reason, string $message, public readonly string $path)
    {
        parent::__construct($message);
    }

    public static function because(Reason $reason, string $message, string $path): static
    {
        return new static($reason, $message, $path);
    }

    /** The same fault seen from a document that contains this one at $prefix. */
    public function under(string $prefix): static
    {
        return new static($this->reason, $this->getMessage(), $prefix . $this->path);
    }

    /** The same fault in another document: what that is, and where it is named in this one. */
    public function in(string $where, string $path): static
    {
        return new static($this->reason, $where . $this->getMessage(), $path);
    }

    /** @return array{error: array{code: string, message: string, path: string, line?: int, column?: int, offset?: int}} */
    public function toArray(): array
    {
        return ['error' => ['code' => $this->reason->value, 'message' => $this->getMessage(), 'path' => $this->path]];
    }
}
