<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

/** Another place at which an overlay could lie. */
final readonly class Elsewhere
{
    /**
     * @param string $says in words
     * @param array<string, string> $fields what would be another in its document
     */
    public function __construct(public string $says, public array $fields)
    {
    }

    /**
     * All places but the one that it has.
     *
     * @param list<string> $places
     * @return list<self>
     */
    public static function but(string $own, string $field, array $places): array
    {
        return array_map(
            static fn (string $place): self => new self(strtr($place, '-', ' '), [$field => $place]),
            array_values(array_filter($places, static fn (string $place): bool => $place !== $own)),
        );
    }
}
