<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** A calendar, or an event of one, that cannot be taken (RFC 5545). */
final class CalendarRefused extends Refused
{
}
