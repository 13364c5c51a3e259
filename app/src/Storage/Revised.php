<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

/** A thing whose document has revisions, none of which is ever lost. */
interface Revised extends Thing
{
    public function revision(): int;

    /** Who saved the newest revision. */
    public function savedBy(): ?string;

    /** @return array<mixed> */
    public function document(): array;

    /**
     * Takes a document as its next revision.
     *
     * @param array<string, mixed> $document
     */
    public function take(array $document, \DateTimeImmutable $at, ?string $by): void;

    /** Its newest revision, to be kept. */
    public function asRevision(?string $note): object;

    /**
     * A document that came too late, to be kept beside its revisions.
     *
     * @param array<string, mixed> $document
     */
    public function aside(array $document, \DateTimeImmutable $at, ?string $by, string $note): object;
}
