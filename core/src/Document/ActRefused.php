<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** An act that cannot be done to a document as it is. */
final class ActRefused extends Refused
{
}
