<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core;

use UpperPane\Core\Text\FaceMetrics;

/** A face on which one can count: every letter is half as wide as the type is high, capitals are 0.7 of it; it has no Greek. */
final readonly class Typewriter implements FaceMetrics
{
    public const FAMILY = 'Typewriter';

    public function knows(string $family): bool
    {
        return $family === self::FAMILY;
    }

    public function advance(string $text, string $family, int $weight): float
    {
        return mb_strlen($text) / 2;
    }

    public function capShare(string $family, int $weight): float
    {
        return 0.7;
    }

    public function missing(string $text, string $family, int $weight): array
    {
        preg_match_all('/\p{Greek}/u', $text, $found);

        return array_values(array_unique($found[0]));
    }
}
