<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Told\Speaking;

/** A template with what somebody has filled into it. */
final readonly class Filling
{
    /** What stands there otherwise is for whoever designs the template. */
    private const MENDED_BY_FILLING_IN = ['text.contrast', 'text.face', 'duration.short', 'zone.empty', 'zone.gap', 'item.cut', 'sound.twice', 'code.small'];

    /**
     * @param array<string, Value> $values what was filled in and says something, by slot
     * @param array<string, string> $paths JSON Pointer to each value that is put into a slot
     */
    private function __construct(private Filled $filled, public Layout $template, private array $values, private array $paths)
    {
    }

    /** @throws Refused where there is no slot for a value, or a value is of another type than its slot */
    public static function of(Filled $filled, Layout $template): self
    {
        [$values, $paths, $known] = [[], [], []];
        foreach ($template->slots as $number => $slot) {
            $id = $slot->head()->id;
            $known[$id] = true;
            $node = $filled->values[$id] ?? null;
            $paths[$id] = "/slots/$number/default";
            $value = $node === null ? null : $slot->read($node);
            if ($node !== null && $value !== null && !$value->isEmpty()) {
                [$values[$id], $paths[$id]] = [$value, $node->path];
            }
        }
        $unknown = array_diff_key($filled->values, $known);
        if ($unknown !== []) {
            $names = array_map(strval(...), array_keys($known));
            throw $unknown[array_key_first($unknown)]->refused(
                Reason::FieldUnknown,
                sprintf('is no slot of "%s"; %s.', $template->name, $names === [] ? 'it has none' : 'there are ' . implode(', ', $names)),
            );
        }
        $filling = new self($filled, $template, $values, $paths);
        $filling->draft();

        return $filling;
    }

    /** Of what was filled in. */
    public function name(): string
    {
        return $this->filled->name;
    }

    /** @return list<string> languages in which one of its texts says nothing, while it says something in others (`slot.language`) */
    public function lacking(): array
    {
        $missing = array_map(static fn (Value $value): array => $value instanceof TextValue ? $value->missing() : [], array_values($this->values));

        return array_values(array_unique(array_merge(...$missing)));
    }

    /** @return list<Explanation> */
    public static function explained(): array
    {
        return [
            new Explanation('slot.missing', 'stop', 'a slot that has to be filled in and is not; white space and an empty list are nothing', 'viewers see what the template had there', 'arithmetic'),
            new Explanation('slot.language', 'warning', 'a text in some of the languages of its slot alone', 'some viewers read another language than theirs', 'arithmetic'),
            new Explanation(
                'slot.long',
                'warning',
                'a text that does not fit its box in the smallest type allowed there: how many words from its end are too many',
                'what stands beyond the box is cut off',
                'as `text.overflow`',
            ),
            new Explanation(
                'slot.shape',
                'warning',
                'a picture of which over 25 % is lost, or that leaves over 25 % of its box',
                'content of another shape than its box',
                'CSS Images 3 for the figures; threshold common practice',
            ),
            new Explanation('slot.small', 'warning', 'source px below canvas px, or below the px of the display', 'it looks soft', 'CSS Images 3 for the scale'),
            new Explanation('slot.range', 'stop', 'a number or a day beyond what the slot allows', 'it is not what was meant', 'arithmetic'),
            new Explanation('slot.count', 'stop', 'more items than the slot allows', 'the last come too late', 'arithmetic'),
        ];
    }

    /**
     * The layout as a plain one: with no slots, and messages that tell what was filled in. Names of the house style stand there as they are written.
     *
     * @throws Refused
     */
    public function layout(Speaking $speaking): Layout
    {
        return $this->draft()->layout($this->filled->id, $this->filled->name, $speaking);
    }

    /**
     * What is wrong with what was filled in, by itself or as seen on a display.
     *
     * @throws Refused
     */
    public function findings(Surroundings $surroundings): Findings
    {
        $view = FilledView::of($this->layout($surroundings->speaking), $surroundings);
        $found = [];
        foreach ($this->template->slots as $slot) {
            $head = $slot->head();
            $value = $this->values[$head->id] ?? $slot->nothing();
            if ($head->isRequired && !isset($this->values[$head->id]) && !$slot->hasDefault()) {
                $found[] = $view->finding($slot, 'slot.missing', Level::Stop, sprintf('"%s" has to be filled in.', $head->name));
            }
            array_push($found, ...($value === null ? [] : [...$value->findings($view)]));
        }

        return new Findings($found);
    }

    /**
     * The same, and what the checks say of the layout that whoever fills in can mend: by other words, another picture, other items.
     *
     * @param Composed $layout what was filled in, as it is seen there
     * @throws Refused
     */
    public function looked(Composed $layout, Surroundings $surroundings): Findings
    {
        $slots = [];
        foreach ($this->template->slots as $slot) {
            foreach ($slot instanceof SwitchSlot || $slot instanceof ChoiceSlot ? [] : $slot->elements() as $element) {
                $slots[$element] ??= $slot->head();
            }
        }
        $found = [];
        foreach (Checks::run($layout, $surroundings)->withoutCures()->all as $finding) {
            $head = array_values(array_intersect_key($slots, array_flip($finding->elements)))[0] ?? null;
            if ($head !== null && in_array($finding->code, self::MENDED_BY_FILLING_IN, true)) {
                $found[] = new Finding($finding->code, $finding->level, $finding->elements, $finding->message, $finding->measure + ['slot' => $head->id], $finding->rect);
            }
        }

        return $this->findings($surroundings)->and($found);
    }

    /**
     * For how much more there is room in each text, as TextSlot::room tells: in its languages, or under "" where there is one text for all.
     *
     * @return array<string, array<string, ?array{letters: int, words: int}>> by slot
     * @throws Refused
     */
    public function room(Surroundings $surroundings): array
    {
        $view = FilledView::of($this->layout($surroundings->speaking), $surroundings);
        $room = [];
        foreach ($this->template->slots as $slot) {
            if ($slot instanceof TextSlot) {
                $room[$slot->head()->id] = $slot->room($this->values[$slot->head()->id] ?? null, $view);
            }
        }

        return $room;
    }

    /**
     * A template with what it is looked at with before anybody fills it in.
     *
     * @param ?string $variant that is looked at, with what is seen in it
     * @throws Refused
     */
    public static function sample(Layout $template, Sample $sample, Surroundings $surroundings, ?string $variant = null): self
    {
        if ($variant !== null) {
            $seen = $template->seenAs($variant);
            $slots = $template->toArray()['slots'] ?? [];
            $template = $seen->with(['slots' => Slots::among(is_array($slots) ? $slots : [], $seen->ids())]);
        }
        $filled = static fn (array $values): self => self::of(Filled::fromArray([
            'format' => Filled::FORMAT,
            'id' => $template->id,
            'name' => $template->name,
            'template' => $template->id,
            'values' => $values,
        ]), $template);
        $view = FilledView::of($filled([])->layout($surroundings->speaking), $surroundings);
        $values = [];
        foreach ($template->slots as $slot) {
            $value = $slot->sample($sample, $view);
            $values += $value === null ? [] : [$slot->head()->id => $value];
        }

        return $filled($values);
    }

    /**
     * That the names of the house style in it mean something, wherever they stand.
     *
     * @throws Refused
     */
    public function checkNames(Surroundings $surroundings): void
    {
        $styling = Styling::on($this->template->canvas, $surroundings);
        $this->template->checkNames($styling, '');
        foreach ($this->values as $id => $value) {
            $value->checkNames($styling, $this->paths[$id]);
        }
    }

    /** @throws Refused where an element could not be read with what was put there */
    private function draft(): Draft
    {
        $draft = new Draft($this->template);
        foreach ($this->template->slots as $slot) {
            $id = $slot->head()->id;
            ($this->values[$id] ?? $slot->nothing())?->put($draft);
            foreach ($slot->elements() as $element) {
                $draft->check($element, $this->paths[$id]);
            }
        }

        return $draft;
    }
}
