<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

/** Why a source was not fetched, as a sentence. */
final class NotFetched extends \RuntimeException
{
}
