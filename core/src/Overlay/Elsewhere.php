<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

/** Where else an overlay could lie: other corners, edges or places, and beside what plays instead of above it. */
final readonly class Elsewhere
{
    /**
     * @param array<string, mixed> $document
     * @return list<array{says: string, fields: array<string, string>}> what would be another in it
     */
    public static function of(array $document): array
    {
        $others = static fn (string $field, string ...$places): array => array_map(
            static fn (string $place): array => ['says' => strtr($place, '-', ' '), 'fields' => [$field => $place]],
            array_values(array_filter($places, static fn (string $place): bool => $place !== ($document[$field] ?? null))),
        );
        $squeezes = ['says' => 'beside what plays, not above it', 'fields' => ['room' => 'squeeze']];

        return match ($document['kind'] ?? null) {
            'mark' => $others('corner', ...Mark::CORNERS),
            // A line that runs along goes on along: at the sides it would have to be turned.
            'ticker' => [
                ...(($document['room'] ?? 'cover') === 'squeeze' ? [] : [$squeezes]),
                ...(in_array($document['edge'] ?? null, ['top', 'bottom'], true) ? $others('edge', 'top', 'bottom') : $others('edge', 'left', 'right')),
            ],
            'notice' => $others('place', ...Notice::places()),
            default => [],
        };
    }
}
