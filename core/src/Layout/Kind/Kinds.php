<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Check\Check;

/** The kinds of elements that there are. A new one is a folder here, a line in this table, and a line in Playback\Drawing\Drawings. */
final readonly class Kinds
{
    /** @var array<string, class-string<WrittenElement>> */
    private const ALL = [
        Zone\Zone::KIND => Zone\Zone::class,
        Text\Text::KIND => Text\Text::class,
        Picture\Picture::KIND => Picture\Picture::class,
        Shape\Shape::KIND => Shape\Shape::class,
        Clock\Clock::KIND => Clock\Clock::class,
        Code\Code::KIND => Code\Code::class,
        Ticker\Ticker::KIND => Ticker\Ticker::class,
        Board\Board::KIND => Board\Board::class,
        Chart\Chart::KIND => Chart\Chart::class,
        Programme\Programme::KIND => Programme\Programme::class,
    ];

    /** Kinds that stand in a part of another element. */
    private const INNER = [Text\Text::KIND, Picture\Picture::KIND, Shape\Shape::KIND, Clock\Clock::KIND, Code\Code::KIND];

    /** Kinds of the contract that are not drawn yet. */
    private const UNBUILT = ['live', 'web', 'stream'];

    public const MOST_INNER = 100;

    /** @return list<string> */
    public static function names(): array
    {
        return array_keys(self::ALL);
    }

    /** @return list<string> those that a player may say it can draw, with those of the contract that are not drawn yet; an opening is no drawing */
    public static function known(): array
    {
        return [...array_values(array_diff(self::names(), [Programme\Programme::KIND])), ...self::UNBUILT];
    }

    /** @throws DocumentRefused */
    public static function read(Node $node): WrittenElement
    {
        $kind = $node->field('kind');
        if (in_array($kind->value, self::UNBUILT, true)) {
            $names = self::names();
            $last = array_pop($names);
            throw $kind->refused(Reason::KindUnbuilt, sprintf('is "%s", which is not drawn yet; %s and %s are.', $kind->text(), implode(', ', $names), $last));
        }

        return self::ALL[$kind->oneOf(...self::names())]::fromNode($node);
    }

    /**
     * An element that stands in a part of another one.
     *
     * @throws DocumentRefused
     */
    public static function inner(Node $node): WrittenElement
    {
        $kind = $node->field('kind')->oneOf(...self::INNER);
        if ($node->has('texts')) {
            throw $node->field('texts')->refused(Reason::FieldUnknown, 'stands in a part of an element, which has one text for all languages.');
        }
        if ($node->has('rows')) {
            throw $node->field('rows')->refused(Reason::FieldUnknown, 'stands in a part of an element; what is told there are the rows of that element.');
        }

        return self::ALL[$kind]::fromNode($node);
    }

    /** Elements that stand in a part of another one, in px that grow with it. */
    public static function innerField(): Field
    {
        /** @var ?Field $field made once, since it never changes */
        static $field = null;

        return $field ??= Field::list(Field::either(...array_map(
            static fn (string $kind): Field => Field::object(
                self::ALL[$kind]::fields()->and(array_replace(
                    ['kind' => Field::constant($kind)->required()] + Head::fields()->all(),
                    ['rect' => Field::object(Rect::growing())->required()],
                ))->named(ucfirst($kind) . 'Element'),
            ),
            self::INNER,
        )), self::MOST_INNER);
    }

    /** The fields of a kind beside those of every element; none of a kind that there is not. */
    public static function fieldsOf(string $kind): Fields
    {
        return isset(self::ALL[$kind]) ? self::ALL[$kind]::fields() : Fields::of([]);
    }

    /**
     * An element that has just been drawn.
     *
     * @param array<string, mixed> $fields what is known of it already
     * @throws DocumentRefused of a kind that there is not, or where a field is wanted that nobody can guess
     */
    public static function begun(Node $kind, string $id, Rect $rect, Size $canvas, array $fields): WrittenElement
    {
        $name = $kind->oneOf(...self::names());

        return self::read(Node::root(['id' => $id, 'kind' => $name, 'rect' => $rect->toArray()] + $fields + self::ALL[$name]::begun($rect, $canvas)));
    }

    /** @return list<array<string, mixed>> JSON Schema of each kind */
    public static function schemas(): array
    {
        return array_map(
            static fn (string $kind, string $class): array => $class::fields()
                ->and(['kind' => Field::constant($kind)->required()] + Head::fields()->all())->named(ucfirst($kind) . 'Element')->schema(),
            self::names(),
            array_values(self::ALL),
        );
    }

    /** @return list<Check> what is looked for in one kind alone */
    public static function checks(): array
    {
        return [new Board\BoardChecks(), new Chart\ChartRange(), new Text\TextClipped(), new Ticker\TickerPace(), new Code\CodeScan()];
    }

    public static function rect(): Field
    {
        return Field::object(Rect::fields());
    }
}
