<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

/** With what a template is looked at before anybody fills it in. */
enum Sample: string
{
    /** As it begins: with its defaults. */
    case Nothing = 'nothing';
    /** The least that can be said: one word, the shortest figure, all that can be switched off. */
    case Least = 'least';
    /** The most: as many words as fit, the longest figure, all that can be switched on. */
    case Longest = 'longest';
}
