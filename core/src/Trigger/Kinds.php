<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Document\Field;

/** The kinds of signals. A new one is a class and a line here. */
final readonly class Kinds
{
    public const ALL = [
        'presence' => Kind\Presence::class,
        'absence' => Kind\Absence::class,
        'press' => Kind\Press::class,
        'touch' => Kind\Touch::class,
        'key' => Kind\Key::class,
        'value' => Kind\Value::class,
        'time' => Kind\Time::class,
        'operator' => Kind\Operator::class,
    ];

    /** A signal of any of them. */
    public static function field(): Field
    {
        return Field::either(...array_map(
            static fn (string $kind, string $class): Field => Field::object(
                Signal::fields()->and(['kind' => Field::constant($kind)->required()])->and($class::fields()->all())->and(Signal::carried()->all())->named(ucfirst($kind) . 'Signal'),
            ),
            array_keys(self::ALL),
            array_values(self::ALL),
        ));
    }
}
