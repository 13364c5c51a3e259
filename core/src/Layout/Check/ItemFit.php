<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\FitsContent;
use UpperPane\Core\Layout\Kind\FittedContent;
use UpperPane\Core\Units\Percent;

/** `item.aspect` and `item.upscaled`: how content of one shape and size meets its box, as CSS object-fit draws it. */
final readonly class ItemFit implements Check
{
    private const SLIGHT = 0.02;
    private const GRAVE = 0.25;

    public static function explained(): array
    {
        return [
            new Explanation(
                'item.aspect',
                'warning from 25 %, else hint',
                'more than 2 % lost, left empty or stretched',
                'content of another shape than its box',
                'CSS Images 3 for the figures; thresholds common practice',
            ),
            new Explanation('item.upscaled', 'warning', 'source px below canvas px, or below the px of the display', 'it looks soft', 'CSS Images 3 for the scale'),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach ($subject->layout->elements as $element) {
            foreach ($element instanceof FitsContent ? $element->fitted() : [] as $content) {
                yield from $this->of($subject, $element, $content);
            }
        }
    }

    /** @return iterable<Finding> */
    private function of(Subject $subject, Element $element, FittedContent $content): iterable
    {
        [$item, $name, $fit, $mode] = [$content->item, $content->name, $content->fit, $content->mode];
        $measure = ($item === null ? [] : ['item' => $item]) + [
            'lost' => round($fit->lost(), 4),
            'bars' => round($fit->empty(), 4),
            'distortion' => round($fit->distortion(), 4),
        ];
        $worst = max($fit->lost(), $fit->empty(), $fit->distortion());
        if ($worst > self::SLIGHT) {
            $what = match (true) {
                $worst === $fit->distortion() => 'is stretched by ' . Percent::of($worst),
                $worst === $fit->lost() => sprintf('loses %s of its area', Percent::of($worst)),
                default => sprintf('leaves %s of the box empty', Percent::of($worst)),
            };
            yield new Finding(
                'item.aspect',
                $worst >= self::GRAVE ? Level::Warning : Level::Hint,
                [$element->id()],
                sprintf('"%s" (%s px) %s in "%s" (%s px, %s).', $name, $fit->source, $what, $element->id(), $fit->box, $mode->value),
                $measure,
                $element->rect(),
                $item !== null && $mode === FitMode::Fill
                    ? [Fix::item('Show all of it, undistorted', $element->id(), $item, ['fit' => FitMode::Contain->value])]
                    : [],
            );
        }
        $scale = max($fit->scaleX, $fit->scaleY) * max(1.0, $subject->displayScale());
        if (!$content->isDrawn && $scale > 1.001) {
            yield new Finding('item.upscaled', Level::Warning, [$element->id()], sprintf(
                '"%s" has %s px and is drawn at %s times its size in "%s"%s: it will look soft.',
                $name,
                $fit->source,
                round($scale, 2),
                $element->id(),
                $subject->display !== null && $subject->displayScale() > 1.0 ? ' on ' . $subject->display->name : '',
            ), ($item === null ? [] : ['item' => $item]) + ['scale' => round($scale, 4)], $element->rect());
        }
    }
}
