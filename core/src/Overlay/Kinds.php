<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;

/** The kinds of overlays. A new one is a class and a line here. */
final readonly class Kinds
{
    /** In the order in which they lie over one another, the lowest first. */
    public const ALL = [
        'window' => Window::class,
        'ticker' => Strip::class,
        'notice' => Notice::class,
        'mark' => Mark::class,
        'takeover' => Takeover::class,
    ];

    /** @return list<array<string, mixed>> JSON Schema of an overlay of each kind */
    public static function schemas(): array
    {
        return array_map(
            static fn (string $kind, string $class): array => Overlay::fields()->and($class::fields()->and(['kind' => Field::constant($kind)->required()])->all())
                ->named(ucfirst($kind) . 'Overlay')->schema(),
            array_keys(self::ALL),
            array_values(self::ALL),
        );
    }

    /** All fields of an overlay of a kind; of one that nobody knows those that every overlay has. */
    public static function fieldsOf(string $kind): Fields
    {
        $class = self::ALL[$kind] ?? null;

        return $class === null ? Overlay::fields() : Overlay::fields()->and($class::fields()->all());
    }

    public static function place(string $kind): int
    {
        return (int) array_search($kind, array_keys(self::ALL), true);
    }
}
