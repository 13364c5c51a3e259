<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Check\Check;
use UpperPane\Core\Layout\Check\Subject;

/** Whether the rows of a board have room, can be read, and stand long enough. */
final readonly class BoardChecks implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation('board.room', 'stop', 'a board in which its pattern does not fit once, or its lines do not', 'no row is told', 'arithmetic'),
            new Explanation('board.empty', 'warning', 'no rows are chosen, and nothing is said of what stands there then', 'a hole', 'arithmetic'),
            new Explanation(
                'board.overflow',
                'warning',
                'the value of all rows that needs the most room, against the box of its text',
                'what stands beyond the box is cut off',
                'HarfBuzz; UAX 14 by ICU',
            ),
            new Explanation(
                'board.small',
                'warning',
                'more rows at once than could be read from the farthest viewer, were the pattern as large as it may be then: 16 arc minutes',
                'nobody reads it',
                'ISO 9241-303 (from memory)',
            ),
            new Explanation(
                'board.brisk',
                'warning',
                'pages that stand for less than the one with the most words takes to be read: 1 s, and each word twice at 180 a minute',
                'they are gone before they are read',
                'common practice',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach ($subject->layout->elements as $element) {
            if ($element instanceof PlayingBoard) {
                yield from self::of($subject, $element);
            }
        }
    }

    /** @return iterable<Finding> */
    private static function of(Subject $subject, PlayingBoard $board): iterable
    {
        $id = $board->id();
        if ($board->board->grid->atOnce === 0) {
            $message = sprintf('"%s" has no room for one row: the pattern has %s px, the board %s px.', $id, $board->board->grid->pattern, $board->board->grid->board);
            yield new Finding('board.room', Level::Stop, [$id], $message, ['at_once' => 0], $board->rect());

            return;
        }
        $figures = BoardFigures::of($board, $board->reads()->atMs);
        if ($figures->rows === 0 && !$board->board->hasEmpty && $board->reads()->inTime !== null) {
            yield new Finding('board.empty', Level::Warning, [$id], sprintf('"%s" has no rows now, and nothing is said of what stands there then.', $id), [], $board->rect());
        }
        yield from self::overflows($subject, $board);
        $legible = $board->legibleRows($subject);
        if ($legible !== null && $legible < $figures->atOnce) {
            yield new Finding(
                'board.small',
                Level::Warning,
                [$id],
                sprintf('"%s" tells %d rows at once; %s could still be read from the farthest viewer.', $id, $figures->atOnce, $legible === 0 ? 'not one' : $legible),
                ['at_once' => $figures->atOnce, 'legible_rows' => $legible],
                $board->rect(),
                $legible === 0 ? [] : [Fix::element($legible === 1 ? 'Tell one row at once' : "Tell $legible rows at once", $id, ['at_most' => $legible])],
            );
        }
        $read = $board->readMs($figures->pages);
        if ($figures->pageMs < $read) {
            yield new Finding(
                'board.brisk',
                Level::Warning,
                [$id],
                sprintf('Pages of "%s" stand for %s s; %s s are needed to read the longest.', $id, round($figures->pageMs / 1000, 1), round($read / 1000, 1)),
                ['page_ms' => $figures->pageMs, 'read_ms' => $read],
                $board->rect(),
                [Fix::element('Let each stand as long as it is read', $id, ['page_ms' => null])],
            );
        }
    }

    /** @return iterable<Finding> */
    private static function overflows(Subject $subject, PlayingBoard $board): iterable
    {
        $faces = $subject->faces;
        foreach ($faces === null ? [] : $board->longest($faces) as $longest) {
            $text = $longest->text;
            if ($faces === null || !$faces->knows($text->style->family) || !$text->overflows($set = $text->set($faces))) {
                continue;
            }
            $fits = $text->largestThatFits($faces, (int) ceil($text->style->sizePx) - 1);
            $plate = 2 * ($text->style->plate->px ?? 0.0);
            yield new Finding(
                'board.overflow',
                Level::Warning,
                [$board->id()],
                sprintf(
                    '"%s": "%s" of row %d needs %d × %d px in "%s", which has %s.%s',
                    $board->id(),
                    mb_strimwidth(strtr($text->text, "\n", ' '), 0, 50, '...'),
                    $longest->row + 1,
                    (int) ceil($set->widthPx + $plate),
                    (int) ceil($set->heightPx + $plate),
                    $text->part,
                    $text->rect()->size(),
                    $fits === null ? '' : " Type of $fits px would fit.",
                ),
                [
                    'part' => $text->part,
                    'row' => $longest->row,
                    'width_px' => round($set->widthPx + $plate, 2),
                    'height_px' => round($set->heightPx + $plate, 2),
                    'over_px' => ['width' => round(max(0, $set->widthPx + $plate - $text->rect()->width), 2), 'height' => round(max(0, $set->heightPx + $plate - $text->rect()->height), 2)],
                    'fits_px' => $fits,
                ],
                $text->rect(),
                $fits === null || $text->part === null ? [] : self::smaller($board, $text->part, $fits),
            );
        }
    }

    /** @return list<Fix> the type of one text of the pattern in another size */
    private static function smaller(PlayingBoard $board, string $part, int $sizePx): array
    {
        $pattern = $board->toArray()['pattern'] ?? null;
        if (!is_array($pattern) || !is_array($pattern['elements'] ?? null)) {
            return [];
        }
        foreach ($pattern['elements'] as $place => $one) {
            if (is_array($one) && ($one['id'] ?? null) === $part && is_array($one['style'] ?? null)) {
                $pattern['elements'][$place] = array_replace($one, ['style' => array_replace($one['style'], ['size_px' => $sizePx])]);
            }
        }

        return [Fix::element("Make its type $sizePx px", $board->id(), ['pattern' => $pattern])];
    }
}
