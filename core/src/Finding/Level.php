<?php

declare(strict_types=1);

namespace UpperPane\Core\Finding;

/** How much a finding weighs: a stop keeps a design from being handed over. */
enum Level: string
{
    case Stop = 'stop';
    case Warning = 'warning';
    case Hint = 'hint';
}
