<?php

declare(strict_types=1);

namespace UpperPane\Core\Text;

/** What the files of type faces say of their letters. The core asks it; who reads the files is somebody else's matter. */
interface FaceMetrics
{
    /** Whether there is a face of this family. */
    public function knows(string $family): bool;

    /**
     * How far the pen moves over a text set on one line, kerning and ligatures as they are drawn by default.
     *
     * @param string $text without line ends
     * @param int $weight 100 to 900; the nearest one of the family counts
     * @return float in em: px for a size of 1 px
     */
    public function advance(string $text, string $family, int $weight): float;

    /** Height of a capital over the size of the type. */
    public function capShare(string $family, int $weight): float;

    /**
     * The letters of a text for which the face has no glyph.
     *
     * @return list<string> each once, in order
     */
    public function missing(string $text, string $family, int $weight): array;
}
