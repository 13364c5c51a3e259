<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

/** Something that somebody made, and of which it is known who did what with it. */
interface Thing
{
    public function about(): About;
}
