<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Chart;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Text\FaceMetrics;

/** Where the plot of a chart lies, its ticks and names around it, and where a value lies in it. */
final readonly class ChartSheet
{
    /**
     * @param list<int|float> $ticks
     * @param \Closure(int|float): string $told a value with its unit
     */
    public function __construct(
        public Chart $chart,
        public float $from,
        public float $to,
        public array $ticks,
        public \Closure $told,
        private ?FaceMetrics $faces,
    ) {
    }

    /** From where columns are drawn: 0, held to the axis. */
    public function base(): float
    {
        return min(max(0.0, $this->from), $this->to);
    }

    public function sizePx(): float
    {
        return $this->chart->style->sizePx;
    }

    public function colour(int $row): Colour
    {
        $colours = $this->chart->colours;

        return $colours === [] ? $this->chart->style->color : $colours[$row % count($colours)];
    }

    public function ruleColour(): Colour
    {
        return Colour::of(substr($this->chart->style->color->hex, 0, 7) . '40');
    }

    /**
     * The plot, so that ticks and names have room beside and below it.
     *
     * @param bool $isUpright whether values go up
     * @param list<string> $names that stand beside it, where they go across
     */
    public function plot(bool $isUpright, array $names = []): Rect
    {
        $rect = $this->chart->rect();
        $style = $this->chart->style;
        $line = ChartPlan::lineOf($style);
        $beside = $isUpright ? array_map($this->told, $this->ticks) : ($this->chart->hasLabels ? $names : []);
        $left = $beside === [] ? 0 : max(array_map(fn (string $text): int => ChartPlan::widthOf($text, $style, $this->faces), $beside)) + (int) round($style->sizePx / 2);
        $left = min($left, intdiv($rect->width, 2));
        $below = $isUpright && !$this->chart->hasLabels ? 0 : $line;
        $above = $isUpright ? intdiv($line, 2) : 0;
        $right = $isUpright ? 0 : min(intdiv($rect->width, 4), ChartPlan::widthOf(($this->told)($this->ticks[count($this->ticks) - 1] ?? 0), $style, $this->faces));
        $below = max($below, $isUpright ? intdiv($line, 2) : 0);

        return Rect::at($rect->x + $left, $rect->y + $above, max(1, $rect->width - $left - $right), max(1, $rect->height - $above - $below));
    }

    /** Where a value lies on a plot in which values go up, canvas px. */
    public function down(Rect $plot, float $value): int
    {
        return $plot->bottom() - (int) round($plot->height * $this->share($value));
    }

    /** Where a value lies on a plot in which values go across, canvas px. */
    public function across(Rect $plot, float $value): int
    {
        return $plot->x + (int) round($plot->width * $this->share($value));
    }

    /**
     * The ground of the plot, a rule for each tick, and what it says.
     *
     * @return list<ChartPart>
     */
    public function ruled(Rect $plot, bool $isUpright): array
    {
        $rect = $this->chart->rect();
        $line = ChartPlan::lineOf($this->chart->style);
        $parts = [ChartPart::shape('plot', null, $plot, Colour::of('#00000000'))];
        $px = max(1, (int) round($this->sizePx() / 24));
        foreach ($this->ticks as $tick) {
            $value = (float) $tick;
            $text = ($this->told)($tick);
            if ($isUpright) {
                $y = $this->down($plot, $value);
                $parts[] = ChartPart::shape('rule', null, Rect::at($plot->x, $y - intdiv($px, 2), $plot->width, $px), $this->ruleColour());
                $width = max(1, $plot->x - $rect->x - (int) round($this->sizePx() / 2));
                $parts[] = ChartPart::words('tick', null, Rect::at($rect->x, $y - intdiv($line, 2), $width, $line), $text, $this->chart->style->aligned('end', 'middle'));
            } else {
                $x = $this->across($plot, $value);
                $width = max(1, ChartPlan::widthOf($text, $this->chart->style, $this->faces) + 2);
                $parts[] = ChartPart::shape('rule', null, Rect::at($x - intdiv($px, 2), $plot->y, $px, $plot->height), $this->ruleColour());
                $parts[] = ChartPart::words('tick', null, Rect::at($x - intdiv($width, 2), $plot->bottom(), $width, $line), $text, $this->chart->style->aligned('center', 'middle'));
            }
        }

        return $parts;
    }

    /**
     * @param list<string> $names
     * @return list<ChartPart>
     */
    public function below(Rect $plot, array $names): array
    {
        $slot = $plot->width / max(1, count($names));
        $parts = [];
        foreach ($this->chart->hasLabels ? $names : [] as $row => $name) {
            [$left, $right] = [(int) round($plot->x + $row * $slot), (int) round($plot->x + ($row + 1) * $slot)];
            $rect = Rect::at($left, $plot->bottom(), max(1, $right - $left), ChartPlan::lineOf($this->chart->style));
            $parts[] = ChartPart::words('label', $row, $rect, $name, $this->chart->style->aligned('center', 'middle'));
        }

        return $parts;
    }

    /**
     * @param list<string> $names
     * @return list<ChartPart>
     */
    public function beside(Rect $plot, array $names): array
    {
        $slot = $plot->height / max(1, count($names));
        $rect = $this->chart->rect();
        $parts = [];
        foreach ($this->chart->hasLabels ? $names : [] as $row => $name) {
            [$top, $bottom] = [(int) round($plot->y + $row * $slot), (int) round($plot->y + ($row + 1) * $slot)];
            $place = Rect::at($rect->x, $top, max(1, $plot->x - $rect->x - (int) round($this->sizePx() / 2)), max(1, $bottom - $top));
            $parts[] = ChartPart::words('label', $row, $place, $name, $this->chart->style->aligned('end', 'middle'));
        }

        return $parts;
    }

    private function share(float $value): float
    {
        return (min(max($value, $this->from), $this->to) - $this->from) / ($this->to - $this->from);
    }
}
