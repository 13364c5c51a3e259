<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Chart;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Check\Check;
use UpperPane\Core\Layout\Check\Subject;

/** `chart.range`: values outside of an axis that is stated; they are drawn as if they lay on its end. */
final readonly class ChartRange implements Check
{
    public static function explained(): array
    {
        return [new Explanation('chart.range', 'warning', 'values outside of an axis that is stated', 'they are drawn as if they lay on its end', 'arithmetic')];
    }

    public function findings(Subject $subject): iterable
    {
        foreach ($subject->layout->elements as $element) {
            $beyond = $element instanceof Chart && $element->reads() !== null ? $element->plan($subject->faces)->beyond : [];
            if ($element instanceof Chart && $beyond !== []) {
                $axis = $element->toArray()['axis'] ?? [];
                yield new Finding(
                    'chart.range',
                    Level::Warning,
                    [$element->id()],
                    sprintf('"%s": %s outside of the axis; first that of row %d.', $element->id(), count($beyond) === 1 ? 'one value lies' : count($beyond) . ' values lie', $beyond[0] + 1),
                    ['count' => count($beyond), 'row' => $beyond[0]],
                    $element->rect(),
                    [Fix::element('Let the axis follow the values', $element->id(), ['axis' => array_diff_key(is_array($axis) ? $axis : [], ['from' => 1, 'to' => 1]) ?: null])],
                );
            }
        }
    }
}
