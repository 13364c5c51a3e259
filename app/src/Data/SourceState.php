<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

/** How a source stands: what was read last, when, and what is wrong since. Instants in Unix ms. */
final readonly class SourceState
{
    /** Kept in the place of when it was true what screens tell, while that is compiled: whoever is killed then leaves it untold. */
    public const TELLING = -1;

    /**
     * @param ?int $takenMs when the data were true
     * @param ?string $sha256 of what was read last
     * @param ?string $kind the format in which it came, until something is changed at the source
     * @param ?string $file name of the file that was brought in
     * @param ?int $toldMs when the data were true that screens tell
     * @param ?string $toldSha256 of these
     * @param list<string> $sealed what it is asked with beside its address, by name alone
     */
    public function __construct(
        public string $id,
        public ?int $dueMs,
        public ?int $takenMs,
        public ?int $failingSinceMs,
        public ?string $why,
        public ?string $sha256,
        public ?int $bytes,
        public ?string $kind,
        public ?string $file,
        public ?string $etag,
        public ?string $modified,
        public array $sealed,
        public ?int $toldMs = null,
        public ?string $toldSha256 = null,
    ) {
    }

    /** @param array<string, mixed> $row */
    public static function ofRow(array $row): self
    {
        $int = static fn (string $name): ?int => is_numeric($row[$name]) ? (int) $row[$name] : null;
        $text = static fn (string $name): ?string => is_string($row[$name]) ? $row[$name] : null;

        return new self(
            $text('source_id') ?? '',
            $int('due_ms'),
            $int('taken_ms'),
            $int('failing_since_ms'),
            $text('why'),
            $text('sha256'),
            $int('bytes'),
            $text('kind'),
            $text('file'),
            $text('etag'),
            $text('modified'),
            ($text('sealed_names') ?? '') === '' ? [] : explode("\n", (string) $text('sealed_names')),
            $int('told_ms') === self::TELLING ? null : $int('told_ms'),
            $text('told_sha256'),
        );
    }
}
