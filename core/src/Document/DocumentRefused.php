<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** A document, or a part of one, that cannot be read. */
final class DocumentRefused extends Refused
{
}
