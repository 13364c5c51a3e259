<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Style;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Media\Media;

/** The house style that rules somewhere, with those that it extends: what each name means there. */
final readonly class Styles
{
    /** @param list<HouseStyle> $chain the one that rules, then the one that it extends, and so on (of()); none where no name means anything */
    public function __construct(public array $chain = [])
    {
    }

    /**
     * @param HouseStyle ...$others that it may extend, and they one another
     * @throws DocumentRefused where one of them is not there, they extend one another in a circle, or two have one id; path in the style at fault
     */
    public static function of(HouseStyle $rules, HouseStyle ...$others): self
    {
        $byId = [];
        foreach ([$rules, ...$others] as $style) {
            if (isset($byId[$style->id])) {
                throw DocumentRefused::because(Reason::IdTwice, sprintf('/id is "%s", which another style has already.', $style->id), '/id');
            }
            $byId[$style->id] = $style;
        }
        foreach ($byId as $style) {
            self::chain($style, $byId, $style === $rules);
        }

        return new self(self::chain($rules, $byId, true));
    }

    /** The one that rules; null where none does. */
    public function rules(): ?HouseStyle
    {
        return $this->chain[0] ?? null;
    }

    public function colour(string $name): ?Colour
    {
        return $this->from('colours', $name)?->colours[$name];
    }

    public function face(string $name): ?NamedFace
    {
        return $this->from('faces', $name)?->faces[$name];
    }

    public function size(string $name): ?NamedSize
    {
        return $this->from('sizes', $name)?->sizes[$name];
    }

    public function mark(string $name): ?Media
    {
        return $this->from('marks', $name)?->marks[$name];
    }

    /**
     * The style of the chain that says what a name means.
     *
     * @param 'colours'|'faces'|'sizes'|'marks' $sort
     */
    public function from(string $sort, string $name): ?HouseStyle
    {
        foreach ($this->chain as $style) {
            if (isset($style->{$sort}[$name])) {
                return $style;
            }
        }

        return null;
    }

    /**
     * @param 'colours'|'faces'|'sizes'|'marks' $sort
     * @return list<string> all names that mean something, in the order of the styles
     */
    public function names(string $sort): array
    {
        $names = [];
        foreach ($this->chain as $style) {
            $names += array_fill_keys(array_keys($style->{$sort}), true);
        }

        return array_map(strval(...), array_keys($names));
    }

    /**
     * @param array<string, HouseStyle> $byId
     * @param bool $isWhole whether each that is extended has to be there
     * @return list<HouseStyle>
     * @throws DocumentRefused
     */
    private static function chain(HouseStyle $style, array $byId, bool $isWhole): array
    {
        $chain = [$style->id => $style];
        for ($at = $style; $at->extends !== null; $at = $next) {
            $next = $byId[$at->extends] ?? null;
            if ($next === null && !$isWhole) {
                break;
            }
            if ($next === null) {
                throw DocumentRefused::because(Reason::RefUnknown, sprintf('/extends is "%s", and no house style of that id is given.', $at->extends), '/extends');
            }
            if (isset($chain[$next->id])) {
                $way = implode(' > ', [...array_keys($chain), $next->id]);
                throw DocumentRefused::because(Reason::RefCycle, sprintf('/extends is "%s", which closes a circle: %s.', $next->id, $way), '/extends');
            }
            $chain[$next->id] = $next;
        }

        return array_values($chain);
    }
}
