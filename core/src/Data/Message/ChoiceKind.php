<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

/** By what a message is chosen. */
enum ChoiceKind: string
{
    case Plural = 'plural';
    case Ordinal = 'selectordinal';
    case Select = 'select';
}
