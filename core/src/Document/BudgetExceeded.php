<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** A document or a question whose answer would take more than its bound (docs/limits.md). */
final class BudgetExceeded extends Refused
{
}
