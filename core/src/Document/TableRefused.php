<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** A table whose rows cannot be read. */
final class TableRefused extends Refused
{
}
