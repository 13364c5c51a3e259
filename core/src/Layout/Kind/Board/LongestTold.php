<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\HasWords;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Told\TellsRows;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Units\Instant;

/** Of one text of a pattern the value that needs the most room. */
final readonly class LongestTold
{
    /** So many of the longest values are measured, to find the one that needs the most room. */
    private const MEASURED = 16;

    /** @param int $row place of the row among the chosen ones, from 0 */
    private function __construct(public Text $text, public int $row)
    {
    }

    /**
     * Of each text of a pattern, over all of some rows.
     *
     * @param list<WrittenElement> $pattern where its first row stands
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows
     * @param Element $owner whose texts these are
     * @return list<self>
     */
    public static function each(array $pattern, array $rows, BoardTeller $teller, Element $owner, FaceMetrics $faces): array
    {
        $told = array_map($teller->row(...), $rows);
        $longest = [];
        foreach ($pattern as $number => $element) {
            $best = null;
            foreach ($element instanceof HasWords ? self::candidates($element, $number, $told) : [] as $place) {
                $one = $teller->part($element, $rows[$place]);
                foreach ($one instanceof HasWords ? $one->words($faces) : [] as $text) {
                    $set = $faces->knows($text->style->family) ? $text->set($faces) : null;
                    $room = $set === null ? 0.0 : $set->heightPx * 1e6 + $set->widthPx;
                    if ($best === null || $room > $best[0]) {
                        $best = [$room, new self($text->ownedBy($owner, $element->id()), $place)];
                    }
                }
            }
            if ($best !== null) {
                $longest[] = $best[1];
            }
        }

        return $longest;
    }

    /**
     * Rows whose values are the longest by their letters alone: these are measured as they are set.
     *
     * @param int $number of the element in the pattern
     * @param list<ToldRow> $rows
     * @return list<int> places
     */
    private static function candidates(WrittenElement $element, int $number, array $rows): array
    {
        $isSame = !$element instanceof TellsRows || !$element->tells();
        $told = [];
        foreach ($isSame ? array_slice($rows, 0, 1) : $rows as $place => $row) {
            $one = $row->elements[$number];
            $told[$one instanceof TellsRows ? $one->says() : ''] ??= $place;
        }
        $widths = array_map(static fn (string|int $says): float => self::roughly((string) $says), array_keys($told));
        arsort($widths);
        $places = array_values($told);

        return array_map(static fn (int $candidate): int => $places[$candidate], array_slice(array_keys($widths), 0, self::MEASURED));
    }

    /** How wide a text is by its letters: wide ones of Latin, Greek and Cyrillic count more, narrow ones less, those of East Asia twice. */
    private static function roughly(string $text): float
    {
        return mb_strwidth($text) + 0.5 * preg_match_all('/[MWmw@%]/', $text) - 0.5 * preg_match_all("/[iljtfrI.,:;'|! ]/", $text);
    }
}
