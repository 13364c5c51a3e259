<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

/** PHP's search for cycles among arrays and objects, which finds none in data and takes as long as reading them. */
final readonly class Sweeping
{
    /**
     * @template T
     * @param \Closure(): T $work that makes many arrays and objects, none of which holds itself
     * @return T
     */
    public static function without(\Closure $work): mixed
    {
        $isOn = gc_enabled();
        gc_disable();
        try {
            return $work();
        } finally {
            if ($isOn) {
                gc_enable();
            }
        }
    }
}
