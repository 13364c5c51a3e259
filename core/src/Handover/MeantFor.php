<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Verdict;

/** Which displays somebody means who hands over what he is working on. */
final readonly class MeantFor
{
    /**
     * Where the layout stands already and would be shown by this canvas; else the display that it was looked at on, else the first that this canvas fits exactly.
     *
     * @param non-empty-list<Size> $canvases of the layout, then those of its variants
     * @param int $worked which of them is worked on
     * @param list<array{id: string, raster: Size, stands: bool}> $displays of the estate; `stands`: the layout was handed over there last
     * @param ?string $seen id of the display that it is looked at on
     * @return list<string> ids
     */
    public static function displays(array $canvases, int $worked, array $displays, ?string $seen): array
    {
        [$standing, $exact, $isSeen] = [[], null, false];
        foreach ($displays as ['id' => $id, 'raster' => $raster, 'stands' => $stands]) {
            if (Matching::bestOf($canvases, $raster) !== $worked || Matching::of($canvases[$worked], $raster)->verdict === Verdict::Crossed) {
                continue;
            }
            if ($stands) {
                $standing[] = $id;
            }
            $isSeen = $isSeen || $id === $seen;
            $exact ??= $canvases[$worked]->equals($raster) ? $id : null;
        }

        $one = $isSeen ? $seen : $exact;

        return $standing !== [] || $one === null ? $standing : [$one];
    }
}
