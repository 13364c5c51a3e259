<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Colour\Contrast;
use UpperPane\Core\Data\PictureAddress;
use UpperPane\Core\Data\Rows\ChosenRows;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Kind\Picture\Picture;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Units\Instant;

/** Boards to begin with, in the house look: which of the fields that rows really have stand where, for a box of any shape. */
final class ReadyBoards
{
    /** What there is, and what it is called. */
    public const NAMES = [
        'departures' => 'Departures', 'prices' => 'Prices', 'results' => 'Results', 'events' => 'Events', 'news' => 'News lines', 'offers' => 'Offers with picture',
        'now' => 'One large figure', 'week' => 'Days side by side',
    ];

    /** What stands in a row: kind of the field, from where to where across (and down), weight, size as a share of the row, and how it is told. */
    private const PATTERNS = [
        'departures' => [
            ['time', 0.0, 0.16, 0.0, 1.0, 700, 0.5, 'start'],
            ['text', 0.17, 0.6, 0.0, 1.0, 700, 0.5, 'start'],
            ['text', 0.61, 0.8, 0.0, 1.0, 400, 0.36, 'start'],
            ['text', 0.81, 1.0, 0.0, 1.0, 600, 0.36, 'end'],
        ],
        'prices' => [['text', 0.0, 0.7, 0.0, 1.0, 600, 0.5, 'start'], ['money', 0.71, 1.0, 0.0, 1.0, 700, 0.5, 'end']],
        'results' => [['figure', 0.0, 0.12, 0.0, 1.0, 400, 0.5, 'start'], ['text', 0.13, 0.75, 0.0, 1.0, 700, 0.5, 'start'], ['figure', 0.76, 1.0, 0.0, 1.0, 600, 0.5, 'end']],
        'events' => [['day', 0.0, 0.24, 0.0, 1.0, 700, 0.3, 'start'], ['text', 0.26, 1.0, 0.0, 0.55, 700, 0.3, 'start'], ['text', 0.26, 1.0, 0.55, 1.0, 400, 0.22, 'start']],
        'news' => [['text', 0.0, 1.0, 0.0, 0.5, 700, 0.28, 'start'], ['text', 0.0, 1.0, 0.5, 1.0, 400, 0.22, 'start']],
        'offers' => [
            ['picture', 0.0, 0.3, 0.0, 1.0, 0, 0.0, ''],
            ['text', 0.33, 1.0, 0.08, 0.4, 700, 0.18, 'start'],
            ['text', 0.33, 1.0, 0.4, 0.68, 400, 0.12, 'start'],
            ['money', 0.33, 1.0, 0.68, 0.94, 700, 0.16, 'start'],
        ],
        'now' => [['figure', 0.0, 1.0, 0.0, 0.7, 700, 0.5, 'center'], ['text', 0.0, 1.0, 0.7, 1.0, 400, 0.14, 'center']],
        'week' => [['day', 0.0, 1.0, 0.0, 0.3, 600, 0.14, 'center'], ['figure', 0.0, 1.0, 0.3, 0.7, 700, 0.24, 'center'], ['text', 0.0, 1.0, 0.7, 1.0, 400, 0.1, 'center']],
    ];

    private const EMPTY = [
        'departures' => 'No departures', 'prices' => 'No prices', 'results' => 'No results', 'events' => 'No events', 'news' => 'No news', 'offers' => 'No offers',
        'now' => 'Not known', 'week' => 'Not known',
    ];

    /** Names of fields that tell one row from another. Common practice, no source. */
    private const MARKS = '/^(?:id|uid|guid|uuid|key|ref|link)$|_id$/iD';

    /** Rows that are taller than a line, by so many times. */
    private const TALL = ['events' => 1.5, 'news' => 1.5, 'offers' => 2.2];

    /** Rows at once, as a share of the shorter side that each takes. Common practice, no source. */
    private const ROW_SHARE = 0.13;
    private const MARGIN_SHARE = 0.012;
    private const LEAST_PX = 12;

    /**
     * @param array<string, mixed> $rows which are chosen, as they stand in the board
     * @param list<string> $names of their fields
     * @param Colour $ground what it stands on
     * @param ?Media $standby where a row means no picture; null where there is none: then there are no pictures
     * @return array<string, mixed> fields of the board
     */
    public static function of(string $name, array $rows, array $names, ChosenRows $chosen, Rect $rect, Colour $ground, ?Media $standby = null): array
    {
        $isSide = $name === 'week';
        $isOne = $name === 'now';
        $row = match (true) {
            $isOne, $isSide => $rect->height,
            default => max(self::LEAST_PX, (int) round(self::ROW_SHARE * min($rect->width, 1.4 * $rect->height) * (self::TALL[$name] ?? 1.0))),
        };
        $row = min($row, $rect->height);
        $width = $isSide ? intdiv($rect->width, 7) : $rect->width;
        $gap = (int) round($row * 0.05);
        $color = Contrast::of(Colour::of('#ffffff'), $ground->over(Colour::black()))->ratio >= 4.5 ? '#ffffff' : '#17272e';
        $margin = (int) round(max(4, self::MARGIN_SHARE * $rect->width));
        $fields = self::kindsOf($names, $chosen);
        $elements = [];
        $taken = [];
        $shift = 0.0;
        foreach (self::pattern($name) as [$kind, $from, $to, $top, $bottom, $weight, $size, $align]) {
            $isPicture = $kind === 'picture';
            $field = $isPicture && $standby === null ? null : self::field($fields, $kind, $taken);
            if ($field === null) {
                // What stands beside it has its room.
                $shift = $isPicture ? $to + 0.03 : $shift;
                continue;
            }
            $taken[] = $field;
            $box = self::box($width - 2 * $margin, $row, ($from - $shift) / (1 - $shift), ($to - $shift) / (1 - $shift), $top, $bottom, $margin);
            if ($isPicture && $standby !== null) {
                $elements[] = ['id' => strtr($field, '_', '-'), 'kind' => Picture::KIND, 'rect' => $box->toArray(), 'media' => ['field' => $field, 'standby' => $standby->toArray()], 'fit' => 'cover'];
                continue;
            }
            $elements[] = self::text($field, self::message($field, $fields[$field], $kind), $box, $size * $row, $weight, $align, $color, true);
        }
        $whole = Rect::at(0, 0, $rect->width, $rect->height);

        return [
            'rows' => $rows,
            'pattern' => ['size' => ['width' => $width, 'height' => $row], 'elements' => $elements],
            ...($isSide ? ['direction' => 'across'] : []),
            ...($isOne || $isSide ? [] : ['gap' => $gap, 'stripe' => $color === '#ffffff' ? '#ffffff14' : '#17272e0f']),
            ...($isOne ? ['at_most' => 1] : []),
            'empty' => ['elements' => [self::text('none', self::EMPTY[$name], $whole, min(0.3 * $row, $rect->height / 3), 600, 'center', $color, false)]],
        ];
    }

    /** @return list<array{string, float, float, float, float, int, float, string}> */
    private static function pattern(string $name): array
    {
        return self::PATTERNS[$name];
    }

    private static function box(int $width, int $height, float $from, float $to, float $top, float $bottom, int $margin): Rect
    {
        return Rect::at(
            $margin + (int) round($from * $width),
            (int) round($top * $height),
            max(1, (int) round(($to - $from) * $width)),
            max(1, (int) round(($bottom - $top) * $height)),
        );
    }

    /** @return array<string, mixed> */
    private static function text(string $id, string $text, Rect $rect, float $sizePx, int $weight, string $align, string $color, bool $isMessage): array
    {
        return ['id' => strtr($id, '_', '-'), 'kind' => Text::KIND, 'rect' => $rect->toArray(), 'text' => $text] + ($isMessage ? ['message' => true] : []) + [
            'style' => ['family' => 'Inter', 'size_px' => max(self::LEAST_PX, (int) round($sizePx)), 'weight' => $weight, 'color' => $color, 'align' => $align, 'valign' => 'middle'],
        ];
    }

    /**
     * @param list<string> $names
     * @return array<string, string> what each tells, by name: `instant`, `day`, `figure`, `picture`, `text`
     */
    private static function kindsOf(array $names, ChosenRows $chosen): array
    {
        $kinds = array_fill_keys(PictureAddress::fields($names, $chosen->rows), 'picture');
        foreach ($names as $name) {
            if (isset($kinds[$name])) {
                continue;
            }
            $value = null;
            foreach ($chosen->rows as $row) {
                $value ??= $row[$name] ?? null;
            }
            $kinds[$name] = match (true) {
                $value instanceof Instant => 'instant',
                $value instanceof Day => 'day',
                is_int($value), is_float($value) => 'figure',
                default => 'text',
            };
        }

        return $kinds;
    }

    /**
     * @param array<string, string> $fields
     * @param list<string> $taken
     */
    private static function field(array $fields, string $kind, array $taken): ?string
    {
        $suiting = match ($kind) {
            'time' => ['instant'],
            'day' => ['day', 'instant'],
            'figure', 'money' => ['figure'],
            'picture' => ['picture'],
            default => ['text'],
        };
        // What only tells one row from another says nothing to viewers, unless there is nothing else.
        foreach ([false, true] as $isMark) {
            foreach ($suiting as $one) {
                foreach ($fields as $name => $is) {
                    if ($is === $one && !in_array($name, $taken, true) && (preg_match(self::MARKS, $name) === 1) === $isMark) {
                        return $name;
                    }
                }
            }
        }

        return null;
    }

    private static function message(string $field, string $is, string $kind): string
    {
        return match (true) {
            $kind === 'time' => "{{$field}, time, HH:mm}",
            $kind === 'day' && $is === 'instant' => "{{$field}, date, EEE d MMM HH:mm}",
            $kind === 'day' => "{{$field}, date, EEE d MMM}",
            $kind === 'money' => "{{$field}, number, #,##0.00}",
            default => "{{$field}}",
        };
    }
}
