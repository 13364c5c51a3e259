<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Cures;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Trial;
use UpperPane\Core\Layout\Arrange\Arrangement;
use UpperPane\Core\Layout\Check\Subject;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Paints;

/**
 * Does what a cure says to a layout, and checks what comes of it.
 *
 * A cure of an element that is no zone is looked at among what lies where it lies, before and after. One of a zone is looked at as a whole, apart from
 * words that lie elsewhere. So many are tried as Budget::TRIALS allows; the findings behind them are offered a cure once others are cured.
 */
final class LayoutTrials
{
    /** A cure that is looked at by itself counts as so many elements. */
    private const ALONE = 10;

    /** Elements that have been checked again. */
    private int $looked = 0;

    /** @param list<Finding> $found in the whole */
    private function __construct(
        private readonly Layout $layout,
        private readonly Composed $composed,
        private readonly Composer $composer,
        private readonly Surroundings $surroundings,
        private readonly array $found,
    ) {
    }

    /** What is found in a layout, each with a cure that makes no other finding, if there is one. */
    public static function cured(Findings $found, Layout $layout, Composed $composed, Composer $composer, Surroundings $surroundings): Findings
    {
        $trials = new self($layout, $composed, $composer, $surroundings, $found->all);

        return new Findings(Cures::tried($found->all, $trials->of(...)));
    }

    /**
     * @return iterable<Trial> as it is, and with the recipe following where it moves what that divides
     * @throws Refused
     */
    private function of(Fix $cure): iterable
    {
        $ids = array_fill_keys([...array_keys($cure->rects), $cure->element ?? ''], true);
        $ofZones = array_intersect_key($this->composed->zones, $ids) !== [];
        if ($this->looked >= Budget::TRIALS) {
            return;
        }
        $layout = $this->layout->cured($cure);
        yield $this->tried($cure, $layout, $ids, $ofZones);
        $recipe = $cure->rects === [] || $layout->recipe === null ? null : Arrangement::of($layout)->following()->layout->recipe;
        if ($recipe !== null && $recipe->toArray() !== $layout->recipe->toArray()) {
            $cure = $cure->withRecipe($recipe->toArray());
            yield $this->tried($cure, $this->layout->cured($cure), $ids, true);
        }
    }

    /**
     * @param array<array-key, true> $ids of the elements that it changes
     * @throws Refused
     */
    private function tried(Fix $cure, Layout $layout, array $ids, bool $asAWhole): Trial
    {
        $composed = $this->composer->again($this->layout, $this->composed, $layout);
        [$places, $paints] = [[], false];
        foreach ([...$this->composed->elements, ...$composed->elements] as $element) {
            if (isset($ids[$element->id()])) {
                $places[] = $element->rect();
                $paints = $paints || $element instanceof Paints;
            }
        }
        $reached = [];
        foreach ($composed->elements as $element) {
            foreach ($places as $place) {
                if ($place->intersection($element->rect()) !== null) {
                    $reached[$element->id()] = true;
                    break;
                }
            }
        }
        // Words elsewhere, and words over what paints nothing, stay as they are.
        $speaks = static fn (Element $element): bool => isset($ids[$element->id()]) || ($paints && isset($reached[$element->id()]));
        if ($asAWhole) {
            $this->looked += count($layout->elements);

            return new Trial($cure, $this->found, $this->found($composed, $speaks));
        }
        $this->looked += self::ALONE;
        $matters = static fn (Element $element): bool => $speaks($element) || ($element instanceof Paints && isset($reached[$element->id()]));

        return new Trial($cure, $this->found($this->composed->only($matters)->still(), $speaks), $this->found($composed->only($matters)->still(), $speaks));
    }

    /**
     * @param \Closure(Element): bool $speaks whose words are looked at
     * @return list<Finding>
     */
    private function found(Composed $layout, \Closure $speaks): array
    {
        return Checks::of(Subject::of($layout, $this->surroundings, $speaks))->all;
    }
}
