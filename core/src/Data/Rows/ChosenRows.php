<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Rows;

use UpperPane\Core\Units\Instant;

/** The rows that are chosen at an instant. */
final readonly class ChosenRows
{
    /**
     * @param int $count before the limit
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows
     * @param list<array{?int, ?int}> $spans from when until when each is chosen, Unix ms; null where that has no end
     */
    public function __construct(public int $count, public array $rows, public array $spans)
    {
    }

    /** @return list<array<string, string|int|float|bool|null>> as JSON tells them */
    public function told(): array
    {
        return array_map(
            static fn (array $row): array => array_map(static fn (mixed $value): string|int|float|bool|null => $value instanceof Instant || $value instanceof Day ? (string) $value : $value, $row),
            $this->rows,
        );
    }
}
