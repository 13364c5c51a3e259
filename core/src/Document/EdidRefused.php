<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** An EDID that cannot be read or written (VESA E-EDID 1.4). */
final class EdidRefused extends Refused
{
}
