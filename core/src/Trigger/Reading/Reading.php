<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Reading;

/** Something that was noticed, as it is heard by signals. */
interface Reading
{
}
