<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Style\StyleNames;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Told\Speaking;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Layout\Variant;
use UpperPane\Core\Time\Playlist;

/** A layout that needs nothing beside itself and what it refers to: names of the house style worked out, messages without rows told, texts in the languages of the place. */
final readonly class PlainLayout
{
    /**
     * @return array<string, mixed> in the format `upper-pane/layout@1`
     * @throws Refused where a name means nothing
     */
    public static function of(Layout $layout, Surroundings $surroundings): array
    {
        return self::plain(self::told($layout, $surroundings), $surroundings);
    }

    /**
     * That a document names nothing of a house style: what refers to it is plain by itself, and could not say what the names mean.
     *
     * @param array<mixed> $document a layout, what was filled into one, or a playlist
     * @throws Refused
     */
    public static function checkPlain(array $document): void
    {
        $fields = match ($document['format'] ?? null) {
            Playlist::FORMAT => Playlist::fields(),
            Filled::FORMAT => Filled::fields(),
            default => Layout::fields(),
        };
        self::checkNone($fields, $document, is_string($document['id'] ?? null) ? $document['id'] : '', '');
    }

    /** @param array<mixed> $value */
    private static function checkNone(Fields $fields, array $value, string $document, string $path): void
    {
        foreach (StyleNames::in($fields, $value, $path) as ['name' => $name, 'path' => $at]) {
            throw DocumentRefused::because(Reason::RefUnknown, sprintf('%s of "%s" is the name "%s" of the house style; what is only referred to states what it means.', $at, $document, $name), $at);
        }
        $fields->mapped($value, static function (mixed $one, Role $role, bool $isObject, string $at) use ($document): mixed {
            if ($role === Role::Layout && is_array($one) && !isset($one['ref'])) {
                self::checkNone(Layout::fields(), $one, $document, $at);
            }

            return $one;
        }, $path);
        foreach (is_array($value['elements'] ?? null) ? $value['elements'] : [] as $place => $element) {
            if (is_array($element) && is_string($element['kind'] ?? null)) {
                self::checkNone(Kinds::fieldsOf($element['kind']), $element, $document, "$path/elements/$place");
            }
        }
    }

    /** @return array<string, mixed> */
    private static function plain(Layout $layout, Surroundings $surroundings): array
    {
        $styling = Styling::on($layout->canvas, $surroundings);
        $document = array_diff_key($layout->toArray(), ['slots' => 1]);
        $elements = [];
        foreach ($layout->elements as $place => $element) {
            $elements[] = self::inside($element::fields(), StyleNames::replaced($element::fields(), $element->toArray(), $styling, "/elements/$place"), $surroundings);
        }
        $document['elements'] = $elements;
        if (isset($document['background'])) {
            $document['background'] = ['color' => $layout->styledBackground($styling, '')->hex];
        }
        if ($layout->variants !== []) {
            $document['variants'] = array_map(static fn (Variant $variant): array => self::variant($layout, $variant, $surroundings), array_values($layout->variants));
        }

        return $document;
    }

    /**
     * With what stands in layouts within it worked out as well, each on its own canvas.
     *
     * @param array<string, mixed> $element
     * @return array<string, mixed>
     */
    private static function inside(Fields $fields, array $element, Surroundings $surroundings): array
    {
        return $fields->mapped($element, static fn (mixed $value, Role $role, bool $isObject, string $path): mixed => $role === Role::Layout && is_array($value) && !isset($value['ref'])
            ? self::plain(Layout::fromNode(Node::at($value, $path)), $surroundings)
            : $value);
    }

    /**
     * A variant whose sizes stand in its places: on its canvas a named size is another one.
     *
     * @return array<string, mixed>
     */
    private static function variant(Layout $layout, Variant $variant, Surroundings $surroundings): array
    {
        $styling = Styling::on($variant->canvas, $surroundings);
        $places = [];
        foreach ($variant->places as $id => $place) {
            $element = $layout->element((string) $id);
            $size = $place['size_px'] ?? ($element === null ? null : Layout::typeSize($element));
            $name = StyleNames::name($size);
            if ($name !== null && $element !== null) {
                $style = StyleNames::replaced($element::fields(), $element->toArray(), $styling, '')['style'] ?? [];
                $family = is_array($style) && is_string($style['family'] ?? null) ? $style['family'] : TextStyle::FAMILY;
                $weight = is_array($style) && is_int($style['weight'] ?? null) ? $style['weight'] : TextStyle::WEIGHT;
                $place['size_px'] = (float) $styling->sizePx($name, $family, $weight, "/variants/$variant->id/places/$id/size_px");
            }
            $places[(string) $id] = $place;
        }

        return array_replace($variant->toArray(), array_intersect_key(Variant::of($variant->id, $variant->canvas, $variant->recipe, $places, $variant->guides)->toArray(), ['places' => 1]));
    }

    /** With messages told that have no rows, and texts in the languages in which they are shown there. */
    private static function told(Layout $layout, Surroundings $surroundings): Layout
    {
        return $layout->withElements(array_map(
            static fn (WrittenElement $element): WrittenElement => self::changes($element->toArray(), $surroundings->speaking, $surroundings->timezone, $element),
            $layout->elements,
        ));
    }

    /**
     * @param array<string, mixed> $given
     * @throws Refused
     */
    private static function changes(array $given, Speaking $speaking, string $timezone, WrittenElement $element): WrittenElement
    {
        $texts = is_array($given['texts'] ?? null) ? $given['texts'] : [];
        $isMessage = ($given['message'] ?? false) === true;
        if ($texts === [] && !$isMessage) {
            return $element;
        }
        $isTold = $isMessage && !isset($given['rows']);
        $stated = is_array($given['rows'] ?? null) && is_string($given['rows']['language'] ?? null) ? $given['rows']['language'] : null;
        $tell = static fn (mixed $text, ?string $language): string => $isTold && is_string($text)
            ? Message::parse($text)->tell([], new Formats($speaking->tellsIn($language, $stated), $timezone, $speaking->arguments()))->text
            : (is_string($text) ? $text : '');
        $shown = [];
        foreach ($texts === [] ? [] : $speaking->among(array_map(strval(...), array_keys($texts))) as $language) {
            $shown[$language] = $tell($texts[$language], $language);
        }

        return $element->changed([
            'text' => $shown === [] ? $tell($given['text'] ?? null, null) : $shown[array_key_first($shown)],
            'texts' => $shown === [] || $speaking->language !== null ? null : $shown,
            'turn_ms' => $shown === [] || $speaking->language !== null ? null : $given['turn_ms'] ?? null,
            'message' => $isTold ? null : ($isMessage ? true : null),
        ]);
    }
}
