<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Check\CodeScan;
use UpperPane\Core\Text\FaceMetrics;

/** What a designer likes to know of an element while she works on it, in one sentence with its figures. */
final readonly class Says
{
    /**
     * @param ?float $mmPerPx of the canvas on the display; null where none is known
     * @return array<string, string> by id of the element; elements of which nothing is to be said are left out
     */
    public static function of(Layout $layout, FaceMetrics $faces, ?float $mmPerPx): array
    {
        $says = [];
        foreach ($layout->visible()->elements as $element) {
            $sentence = match (true) {
                $element instanceof Text => self::text($element, $faces),
                $element instanceof Clock => self::clock($element, $faces),
                $element instanceof Ticker => self::ticker($element, $faces),
                $element instanceof Code => self::code($element, $mmPerPx),
                default => null,
            };
            if ($sentence !== null) {
                $says[$element->id()] = $sentence;
            }
        }

        return $says;
    }

    private static function text(Text $text, FaceMetrics $faces): ?string
    {
        if (trim($text->text) === '' || !$faces->knows($text->style->family)) {
            return null;
        }
        $drawn = $text->resolved($faces);
        $set = $drawn->set($faces);
        $plate = 2 * ($text->style->plate->px ?? 0.0);

        return sprintf(
            '%s, %d × %d px%s%s',
            count($set->lines) === 1 ? 'one line' : count($set->lines) . ' lines',
            (int) ceil($set->widthPx + $plate),
            (int) ceil($set->heightPx + $plate),
            $drawn->style->sizePx === $text->style->sizePx ? '' : sprintf(', set in %s px', Box::figure($drawn->style->sizePx)),
            $drawn->text === $text->text ? '' : sprintf(', cut after %d characters', mb_strlen($drawn->text) - 1),
        ) . sprintf('; read in %d s', intdiv(Reading::neededMs($text->wordCount()), 1000));
    }

    private static function clock(Clock $clock, FaceMetrics $faces): ?string
    {
        [$words] = [...$clock->words($faces), null];
        if ($words === null || !$faces->knows($words->style->family)) {
            return null;
        }

        return sprintf('at its longest %d px wide, its box has %d', (int) ceil($words->set($faces)->widthPx), $clock->rect()->width);
    }

    private static function ticker(Ticker $ticker, FaceMetrics $faces): ?string
    {
        $length = $ticker->lengthPx($faces);
        $words = $length === null ? null : $ticker->wordsAMinute($length);

        return $length === null || $words === null ? null : sprintf(
            'one pass lasts %s s, %d words a minute come by',
            round($ticker->passMs($length) / 1000, 1),
            (int) round($words),
        );
    }

    private static function code(Code $code, ?float $mmPerPx): string
    {
        $modules = $code->across() - 2 * $code->quiet;
        $module = $code->modulePx();

        return sprintf('version %d, %d modules of %s px', $code->version, $modules, round($module, 2)) . ($mmPerPx === null ? '' : sprintf(
            ' (%s mm), scanned from about %s m',
            round($module * $mmPerPx, 1),
            round($module * $modules * $mmPerPx * CodeScan::REACH / 1000, 1),
        ));
    }
}
