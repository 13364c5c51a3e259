<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Style;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Colour\Contrast;
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

    /**
     * Each of its opaque colours on each other one, and whether it can be read there.
     *
     * @return list<array{text: string, ground: string, ratio: float, normal: bool, large: bool}> by their names
     */
    public function contrasts(): array
    {
        $table = [];
        $colours = [];
        foreach ($this->names('colours') as $name) {
            $colour = $this->colour($name);
            if ($colour !== null && $colour->isOpaque()) {
                $colours[$name] = $colour;
            }
        }
        foreach ($colours as $text => $one) {
            foreach ($colours as $ground => $other) {
                if ($text !== $ground) {
                    $table[] = ['text' => (string) $text, 'ground' => (string) $ground] + Contrast::of($one, $other)->toArray();
                }
            }
        }

        return $table;
    }

    /**
     * What each name means there.
     *
     * @return array<string, string> by name, as `colours/sea`: the same text for the same meaning
     */
    public function meanings(): array
    {
        $meanings = [];
        foreach ($this->names('colours') as $name) {
            $meanings["colours/$name"] = $this->colour($name)->hex ?? '';
        }
        foreach ($this->names('faces') as $name) {
            $face = $this->face($name);
            $meanings["faces/$name"] = sprintf('%s %s', $face->weight ?? '', $face->family ?? '');
        }
        foreach ($this->names('sizes') as $name) {
            $size = $this->size($name);
            $meanings["sizes/$name"] = sprintf('%s %s', $size->value ?? '', $size->unit ?? '');
        }
        foreach ($this->names('marks') as $name) {
            $meanings["marks/$name"] = json_encode($this->mark($name)?->toArray(), JSON_THROW_ON_ERROR);
        }

        return $meanings;
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
