<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** A document or a question whose answer would take more than its bound (docs/limits.md). */
final class BudgetExceeded extends Refused
{
    /** How many there are, of what the bound is for. */
    private int $count = PHP_INT_MAX;
    private string $bound = '';

    /** @param string $sentence of the bound, with two `%s`: how many there are, and how many are the most */
    public static function of(int $count, int $most, string $path, string $sentence): self
    {
        $told = sprintf($sentence, $count === PHP_INT_MAX ? 'more than can be counted' : number_format($count), number_format($most));
        $exceeded = self::because(Reason::BudgetExceeded, ($path === '' ? 'The document' : $path) . ' ' . $told, $path);
        [$exceeded->count, $exceeded->bound] = [$count, $sentence];

        return $exceeded;
    }

    public function in(string $where, string $path): static
    {
        $told = parent::in($where, $path);
        [$told->count, $told->bound] = [$this->count, $this->bound];

        return $told;
    }

    /** Whether it is over the same bound, and by no more: what was stored like that may be stored again. */
    public function isNoWorseThan(self $other): bool
    {
        return $this->bound === $other->bound && $this->count <= $other->count;
    }
}
