<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Rect;

/** `recipe.differs`: rectangles rule; a recipe that says otherwise would move them when it is solved again. */
final readonly class RecipeDiffers implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation(
                'recipe.differs',
                'warning',
                'rectangles of elements against the recipe solved for the canvas; areas that name no element; a recipe that does not fit',
                'solved again, the layout would change',
                'CSS Grid 2, 7 and 12',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        $layout = $subject->layout;
        if ($layout->recipe === null) {
            return;
        }
        try {
            $rects = $layout->recipe->solve($layout->canvas, '/recipe');
        } catch (DocumentRefused $e) {
            yield new Finding('recipe.differs', Level::Warning, [], 'The recipe does not fit this canvas. ' . $e->getMessage(), ['path' => $e->path]);

            return;
        }
        // One alone may come to lie on another that stands where it does not belong either.
        $together = array_filter($rects, static fn (Rect $rect, int|string $name): bool => $layout->element((string) $name)?->rect()->equals($rect) === false, ARRAY_FILTER_USE_BOTH);
        foreach ($rects as $name => $rect) {
            $name = (string) $name;
            $element = $layout->element($name);
            if ($element === null) {
                yield new Finding('recipe.differs', Level::Warning, [], sprintf('The recipe has an area "%s", and no element is called so.', $name), ['says' => $rect->toArray()], $rect);
            } elseif (!$element->rect()->equals($rect)) {
                $is = $element->rect();
                yield new Finding(
                    'recipe.differs',
                    Level::Warning,
                    [$name],
                    sprintf('"%s" is %s px at %d, %d; the recipe says %s px at %d, %d.', $name, $is->size(), $is->x, $is->y, $rect->size(), $rect->x, $rect->y),
                    ['is' => $is->toArray(), 'says' => $rect->toArray()],
                    $is,
                    [Fix::rect(sprintf('Put "%s" where the recipe says', $name), $name, $rect), ...($together === [] ? [] : [Fix::rects('Put all where the recipe says', $together)])],
                );
            }
        }
    }
}
