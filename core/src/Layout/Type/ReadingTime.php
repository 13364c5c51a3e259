<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Type;

use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\HasWords;
use UpperPane\Core\Layout\Told\TakesTurns;

/** How long words have to stand: 1 s to notice them, then twice the time of reading them at 180 words a minute. Common practice, no source. */
final readonly class ReadingTime
{
    private const NOTICE_MS = 1000;
    public const WORDS_A_MINUTE = 180;

    public static function wordsOf(string $text): int
    {
        return preg_match_all('/[\p{L}\p{N}][\p{L}\p{M}\p{N}.,:’\'-]*/u', $text) ?: 0;
    }

    /** @return int ms, whole seconds */
    public static function neededMs(int $words): int
    {
        return $words === 0 ? 0 : self::NOTICE_MS + (int) ceil(2 * $words * 60 / self::WORDS_A_MINUTE) * 1000;
    }

    /** The words of all texts of a layout, those of layouts within it not counted; in the language that has the most. */
    public static function wordsIn(Composed $layout): int
    {
        return array_sum(array_map(self::wordsOfElement(...), $layout->visible()->elements));
    }

    private static function wordsOfElement(Element $element): int
    {
        $languages = $element instanceof TakesTurns ? $element->inLanguages()->elements ?? [] : [];

        return max(array_map(static fn (Element $one): int => $one instanceof HasWords ? $one->wordCount() : 0, [$element, ...array_values($languages)]));
    }
}
