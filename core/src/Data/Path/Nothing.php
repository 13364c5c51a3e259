<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Path;

/** That there is no value, which is something else than null (RFC 9535, 2.4.1). */
enum Nothing
{
    case Here;
}
