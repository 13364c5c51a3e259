<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use UpperPane\App\Http\Problem;

/**
 * What became of saving.
 *
 * @template T of Revised
 */
final readonly class Saved
{
    /**
     * @param T $thing
     * @param ?int $lateBy revision that it was based on, where another came first: then it is kept aside
     */
    public function __construct(private Revised $thing, private ?int $lateBy)
    {
    }

    /**
     * @param \Closure(T): array<string, mixed> $told the thing as it stands
     * @return array<string, mixed>
     * @throws Problem where it came too late
     */
    public function told(\Closure $told): array
    {
        if ($this->lateBy !== null) {
            throw new Problem(409, 'revision.stale', sprintf(
                '"%s" was saved as revision %d by %s while you worked on revision %d. Your version is kept beside it.',
                $this->thing->about()->name,
                $this->thing->revision(),
                $this->thing->savedBy() ?? 'somebody',
                $this->lateBy,
            ), more: ['current' => $told($this->thing)]);
        }

        return $told($this->thing);
    }
}
