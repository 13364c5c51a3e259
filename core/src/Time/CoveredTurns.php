<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

/** What takes turns, and stands back for one scene in some stretches of time: at once, and whatever is going on. After each it begins anew. */
final readonly class CoveredTurns implements Turns
{
    use WalksTurns;

    /**
     * @param list<array{int, int}> $spans from and to of each stretch, Unix ms, rising
     * @param int $scene number of the scene that stands there then
     * @param bool $isBegun whether it begins with the item of another zone
     */
    public function __construct(private Turns $own, private array $spans, private int $scene, private bool $isBegun = false)
    {
    }

    public function at(int $atMs): Turn
    {
        [$after, $until] = [PHP_INT_MIN, PHP_INT_MAX];
        foreach ($this->spans as [$from, $to]) {
            if ($from <= $atMs && $atMs < $to) {
                return new Turn($from, $to, $from, Loop::endless($this->scene));
            }
            [$after, $until] = $to <= $atMs ? [max($after, $to), $until] : [$after, min($until, $from)];
        }
        $turn = ($after === PHP_INT_MIN || $this->isBegun ? $this->own : $this->own->anchored($after))->at($atMs);

        return new Turn(max($turn->fromMs, $after), min($turn->toMs, $until), $turn->anchorMs, $turn->loop, $turn->play);
    }

    public function anchored(int $anchorMs): self
    {
        $spans = array_filter($this->spans, static fn (array $span): bool => $span[1] > $anchorMs);

        return new self($this->own->anchored($anchorMs), array_values(array_map(static fn (array $span): array => [max($span[0], $anchorMs), $span[1]], $spans)), $this->scene);
    }

    public function resumed(int $fromMs, int $anchorMs): self
    {
        return $this->anchored($anchorMs);
    }

    public function begun(): self
    {
        return new self($this->own->begun(), $this->spans, $this->scene, true);
    }
}
