<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Layout\Surroundings;

/** What was filled in, as it is seen by itself or on a display. */
final readonly class FilledView
{
    /** @param array<string, WrittenElement> $elements with what the names of the house style in them mean, by id */
    private function __construct(public Surroundings $surroundings, private array $elements, private float $displayScale)
    {
    }

    /**
     * @param Layout $layout that was filled in
     * @throws Refused
     */
    public static function of(Layout $layout, Surroundings $surroundings): self
    {
        $raster = $surroundings->display?->raster();
        $seen = $raster === null ? $layout : $layout->for($raster);
        $styling = Styling::on($seen->canvas, $surroundings);
        $elements = [];
        foreach ($seen->elements as $place => $element) {
            $elements[$element->id()] = $element->styled($styling, "/elements/$place");
        }

        return new self($surroundings, $elements, $raster === null ? 1.0 : Matching::of($seen->canvas, $raster)->scale);
    }

    /** Null where it is not seen there. */
    public function element(string $id): ?WrittenElement
    {
        $element = $this->elements[$id] ?? null;

        return $element === null || $element->isHidden() ? null : $element;
    }

    /** Px of the display for one px of the canvas; 1 where no display is given. */
    public function displayScale(): float
    {
        return $this->displayScale;
    }

    /** @param array<string, mixed> $measure */
    public function finding(Slot $slot, string $code, Level $level, string $message, array $measure = []): Finding
    {
        $ids = $slot->elements();

        return new Finding($code, $level, $ids, $message, ['slot' => $slot->head()->id] + $measure, count($ids) === 1 ? $this->element($ids[0])?->rect() : null);
    }
}
