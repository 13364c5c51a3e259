<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** A type face that cannot be used. */
final class FaceRefused extends Refused
{
}
