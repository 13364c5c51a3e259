<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Chart;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Data\Ticks;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Told\Reading;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Units\Instant;

/** A chart worked out: every rectangle to the px, so that pane, thumbnail and player draw the same. */
final readonly class ChartPlan
{
    /** Of its slot, a column takes so much; the rest parts it from the next. Common practice, no source. */
    private const COLUMN_SHARE = 0.7;
    /** A letter is about so wide for its size, where nobody can measure it. Common practice, no source. */
    private const LETTER = 0.6;
    private const LINE = 1.4;
    /** A gauge goes round so far, degrees, open at the bottom. */
    private const SWEEP = 240.0;
    private const ARC_STEPS = 60;

    /**
     * @param list<ChartPart> $parts lowest first
     * @param list<int> $beyond places of the rows whose value lies outside of a stated axis
     */
    private function __construct(public array $parts, public array $beyond)
    {
    }

    /** @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows */
    public static function of(Chart $chart, array $rows, Reading $reading, ?FaceMetrics $faces): self
    {
        $values = [];
        foreach ($rows as $place => $row) {
            $value = Formats::number($row[$chart->value] ?? null);
            if ($value !== null) {
                $values[$place] = (float) $value;
            }
        }
        $values = $chart->type === Chart::GAUGE ? array_slice($values, 0, 1, true) : $values;
        [$from, $to] = $chart->axis->range(array_values($values));
        $beyond = array_keys(array_filter(
            $values,
            static fn (float $value): bool => ($chart->axis->from !== null && $value < $from) || ($chart->axis->to !== null && $value > $to),
        ));
        $told = static fn (int|float $value): string => ($reading->formats->told($value, 'number', '') ?? '') . ($chart->axis->unit === '' ? '' : " {$chart->axis->unit}");
        $names = $chart->names($reading);
        $sheet = new ChartSheet($chart, $from, $to, Ticks::of($from, $to, $chart->axis->ticks), $told, $faces);

        return new self(match ($chart->type) {
            Chart::GAUGE => self::gauge($sheet, $values, $names),
            Chart::BARS => self::bars($sheet, $values, $names),
            Chart::LINE => self::line($sheet, $values, $names),
            default => self::columns($sheet, $values, $names),
        }, $beyond);
    }

    /**
     * @param array<int, float> $values by row
     * @param list<string> $names
     * @return list<ChartPart>
     */
    private static function columns(ChartSheet $sheet, array $values, array $names): array
    {
        $plot = $sheet->plot(true);
        $parts = $sheet->ruled($plot, true);
        $slot = $plot->width / max(1, count($names));
        foreach ($values as $row => $value) {
            [$top, $bottom] = [$sheet->down($plot, max($value, $sheet->base())), $sheet->down($plot, min($value, $sheet->base()))];
            $x = (int) round($plot->x + ($row + (1 - self::COLUMN_SHARE) / 2) * $slot);
            $width = max(1, (int) round(self::COLUMN_SHARE * $slot));
            if ($bottom > $top) {
                $parts[] = ChartPart::shape('column', $row, Rect::at($x, $top, $width, $bottom - $top), $sheet->colour($row));
            }
        }

        return [...$parts, ...$sheet->below($plot, $names)];
    }

    /**
     * @param array<int, float> $values by row
     * @param list<string> $names
     * @return list<ChartPart>
     */
    private static function bars(ChartSheet $sheet, array $values, array $names): array
    {
        $plot = $sheet->plot(false, $names);
        $parts = $sheet->ruled($plot, false);
        $slot = $plot->height / max(1, count($names));
        foreach ($values as $row => $value) {
            [$left, $right] = [$sheet->across($plot, min($value, $sheet->base())), $sheet->across($plot, max($value, $sheet->base()))];
            $y = (int) round($plot->y + ($row + (1 - self::COLUMN_SHARE) / 2) * $slot);
            if ($right > $left) {
                $parts[] = ChartPart::shape('column', $row, Rect::at($left, $y, $right - $left, max(1, (int) round(self::COLUMN_SHARE * $slot))), $sheet->colour($row));
            }
        }

        return [...$parts, ...$sheet->beside($plot, $names)];
    }

    /**
     * @param array<int, float> $values by row
     * @param list<string> $names
     * @return list<ChartPart>
     */
    private static function line(ChartSheet $sheet, array $values, array $names): array
    {
        $plot = $sheet->plot(true);
        $parts = $sheet->ruled($plot, true);
        $slot = $plot->width / max(1, count($names));
        $size = max(3, (int) round($sheet->sizePx() / 2));
        [$points, $dots] = [[], []];
        foreach ($values as $row => $value) {
            [$x, $y] = [$plot->x + ($row + 0.5) * $slot, $sheet->down($plot, $value)];
            $points[] = [round($x - $plot->x, 2), (float) ($y - $plot->y)];
            $dots[] = ChartPart::shape('point', $row, Rect::at((int) round($x) - intdiv($size, 2), $y - intdiv($size, 2), $size, $size), $sheet->colour(0), 'ellipse');
        }
        $line = count($points) < 2 ? [] : [ChartPart::line('line', null, $plot, $sheet->colour(0), $points, max(1.0, round($size / 3, 1)))];

        return [...$parts, ...$line, ...$dots, ...$sheet->below($plot, $names)];
    }

    /**
     * @param array<int, float> $values of the first row alone
     * @param list<string> $names
     * @return list<ChartPart>
     */
    private static function gauge(ChartSheet $sheet, array $values, array $names): array
    {
        $rect = $sheet->chart->rect();
        $width = max(2.0, round(min($rect->width, $rect->height) / 9, 1));
        $radius = min($rect->width, $rect->height) / 2 - $width / 2;
        $arc = static function (float $share) use ($rect, $radius): array {
            $points = [];
            for ($step = 0, $steps = max(1, (int) round(self::ARC_STEPS * $share)); $step <= $steps; $step++) {
                $angle = deg2rad(90 + (360 - self::SWEEP) / 2 + self::SWEEP * $share * $step / $steps);
                $points[] = [round($rect->width / 2 + $radius * cos($angle), 2), round($rect->height / 2 + $radius * sin($angle), 2)];
            }

            return $points;
        };
        $parts = [ChartPart::line('plot', null, $rect, $sheet->ruleColour(), $arc(1.0), $width)];
        $row = array_key_first($values);
        if ($row === null) {
            return $parts;
        }
        $share = (min(max($values[$row], $sheet->from), $sheet->to) - $sheet->from) / ($sheet->to - $sheet->from);
        if ($share > 0.0) {
            $parts[] = ChartPart::line('column', $row, $rect, $sheet->colour(0), $arc($share), $width);
        }
        $style = $sheet->chart->style;
        $line = (int) round(self::LINE * $style->sizePx);
        $middle = Rect::at($rect->x, $rect->y + intdiv($rect->height - $line, 2), $rect->width, $line);
        $parts[] = ChartPart::words('label', $row, $middle, ($sheet->told)($values[$row]), $style->aligned('center', 'middle'));
        if ($sheet->chart->hasLabels && ($names[$row] ?? '') !== '') {
            $small = $style->sized(max(1.0, round($style->sizePx / 2)))->aligned('center', 'middle');
            $parts[] = ChartPart::words('label', $row, Rect::at($rect->x, $middle->bottom(), $rect->width, max(1, intdiv($line, 2))), $names[$row], $small);
        }

        return $parts;
    }

    /** @return int px that words of a style take up in a line */
    public static function widthOf(string $text, TextStyle $style, ?FaceMetrics $faces): int
    {
        $em = $faces !== null && $faces->knows($style->family) ? $faces->advance($text, $style->family, $style->weight) : self::LETTER * mb_strlen($text);

        return (int) ceil($em * $style->sizePx);
    }

    public static function lineOf(TextStyle $style): int
    {
        return (int) ceil(self::LINE * $style->sizePx);
    }
}
