<?php

declare(strict_types=1);

namespace UpperPane\Core;

/** Everything the core refuses carries this marker, so that an edge can catch one type. */
interface UpperPaneError extends \Throwable
{
}
