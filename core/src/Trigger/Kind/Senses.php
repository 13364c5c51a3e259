<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Kind;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Sensor;

/** A kind of signal that a sensor of the display raises. */
trait Senses
{
    /** What a display lacks, in words; null where it has a sensor of that id and kind. */
    private static function sensorLacking(Display $display, string $id, string $kind): ?string
    {
        $sensor = $display->sensor($id);

        return match (true) {
            $sensor === null => sprintf('has no sensor "%s"; it has %s', $id, implode(', ', array_map(static fn (Sensor $one): string => "\"$one->id\"", $display->sensors)) ?: 'none'),
            $sensor->kind !== $kind => sprintf('has a sensor "%s" of kind %s; one of kind %s is needed', $id, $sensor->kind, $kind),
            default => null,
        };
    }

    /** The same of a display that needs any sensor of a kind. */
    private static function kindLacking(Display $display, string $kind): ?string
    {
        foreach ($display->sensors as $sensor) {
            if ($sensor->kind === $kind) {
                return null;
            }
        }

        return sprintf('has no sensor of kind %s', $kind);
    }
}
