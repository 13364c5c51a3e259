<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Board;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Document\UniqueIds;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Composable;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\ElementHead;
use UpperPane\Core\Layout\Kind\Head;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Time\Transition;

/** Rows of data, each in a pattern that is drawn once, as many at once as have room; the rest on further pages. */
final readonly class Board implements WrittenElement, Composable
{
    use ElementHead;

    public const KIND = 'board';

    /** Where nothing is said, a page stands for as long as it is read. */
    public const READ = 'read';
    private const MOST_MS = 86_400_000;
    private const MOST_ACROSS = 100;
    private const MOST_HIGHLIGHTS = 20;

    /**
     * @param list<WrittenElement> $pattern
     * @param list<WrittenElement> $header
     * @param ?int $pageMs null where it follows from reading
     * @param list<WrittenElement> $empty what stands there without rows
     * @param list<Highlight> $highlights the first that holds counts
     * @param ?Text $continued what is told where there are several pages
     * @param 'mark'|list<WrittenElement>|null $stale what is done about data that are too old
     */
    private function __construct(
        private Head $head,
        public Rows $rows,
        public Grid $grid,
        public array $pattern,
        public array $header,
        public bool $isBalanced,
        public ?int $pageMs,
        public Transition $transition,
        public array $empty,
        public bool $hasEmpty,
        public ?Colour $stripe,
        public array $highlights,
        public ?Text $continued,
        public string|array|null $stale,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;
        $px = static fn (int $least): Field => Field::int($least, Size::LONGEST, Role::WholePx);
        $elements = Fields::of(['elements' => Kinds::innerField()]);

        return $fields ??= Fields::of([
            'rows' => Field::object(Rows::fields())->required(),
            'pattern' => Field::object(Fields::of([
                'size' => Field::object(Size::growing())->required(),
                'elements' => Kinds::innerField()->required(),
            ])->named('Pattern'))->required()->saying('of one row'),
            'header' => Field::object(Fields::of(['height' => $px(1)->required(), 'elements' => Kinds::innerField()])->named('BoardHeader')),
            'direction' => Field::oneOf('down', 'across')->saying('in which a line of rows goes; down by default'),
            'across' => Field::int(1, self::MOST_ACROSS)->saying('lines beside one another'),
            'gap' => $px(0)->saying('between rows, and between lines'),
            'at_most' => Field::int(1, 10_000)->saying('rows at once'),
            'balance' => Field::bool()->saying('whether pages differ by one row at the most; they do unless it says false'),
            'page_ms' => Field::either(Field::int(1, self::MOST_MS), Field::oneOf(self::READ)),
            'transition' => Field::object(Transition::fields()),
            'empty' => Field::object($elements->named('BoardEmpty'))->saying('what stands there without rows'),
            'stripe' => Field::colour()->saying('over every second place'),
            'highlight' => Field::list(Highlight::field(), self::MOST_HIGHLIGHTS)->saying('the first that holds'),
            'continued' => Field::object(Fields::of([
                'text' => Field::text(0, 1_000, Role::Words)->required(),
                'rect' => Field::object(Rect::growing())->required(),
                'style' => TextStyle::field()->required(),
            ])->named('BoardContinued'))->saying('a message that is told where there are several pages'),
            'stale' => Field::either(Field::object($elements->and(['elements' => Kinds::innerField()->required()])->named('BoardStale')), Field::oneOf('mark'))
                ->saying('what is done about data that are too old: their age is told, or this stands there'),
        ]);
    }

    public static function begun(Rect $rect, Size $canvas): array
    {
        $height = max(1, (int) round(min($rect->height / 4, $canvas->height / 8)));
        $text = Rect::at(0, 0, $rect->width, $height);

        return ['pattern' => ['size' => $text->size()->toArray(), 'elements' => [
            ['id' => 'row', 'kind' => Text::KIND, 'rect' => $text->toArray(), 'text' => 'Row', 'style' => ['valign' => 'middle'] + TextStyle::begun($text, $canvas, 0.5)],
        ]]];
    }

    /** @throws Refused */
    public static function fromNode(Node $node): static
    {
        $head = Head::fromNode($node, self::fields());
        $pattern = $node->field('pattern')->object('size', 'elements');
        $header = $node->optional('header')?->object('height', 'elements');
        $pageMs = $node->optional('page_ms');
        $pageMs = $pageMs === null || $pageMs->value === self::READ ? null : $pageMs->int(1, self::MOST_MS, 'ms');
        $grid = Grid::of(
            $head->rect->size(),
            Size::fromNode($pattern->field('size')),
            $header?->field('height')->int(1, Size::LONGEST, 'px') ?? 0,
            ($node->optional('direction')?->oneOf('down', 'across') ?? 'down') === 'down',
            $node->optional('across')?->int(1, self::MOST_ACROSS) ?? 1,
            $node->optional('gap')?->int(0, Size::LONGEST, 'px') ?? 0,
            $node->optional('at_most')?->int(1, 10_000),
        );
        $empty = $node->optional('empty')?->object('elements');
        $rows = Rows::fromNode($node->field('rows'));
        $highlights = [];
        foreach ($node->optional('highlight')?->items(self::MOST_HIGHLIGHTS) ?? [] as $one) {
            $highlights[] = $highlight = Highlight::fromNode($one);
            foreach ($highlight->where as $index => $condition) {
                $rows->known($condition->field, $one->field('where')->items()[$index]->field('field'));
            }
        }

        return new self(
            $head,
            $rows,
            $grid,
            self::elements($pattern->field('elements')),
            self::elements($header?->optional('elements')),
            $node->optional('balance')?->bool() ?? true,
            $pageMs,
            ($transition = $node->optional('transition')) ? Transition::fromNode($transition, $pageMs) : Transition::cut(),
            self::elements($empty?->optional('elements')),
            $empty !== null,
            ($stripe = $node->optional('stripe')) ? Colour::fromNode($stripe) : null,
            $highlights,
            self::continuedOf($node->optional('continued')),
            self::staleOf($node->optional('stale')),
        );
    }

    public function composed(Composer $composer, string $path): Element
    {
        return PlayingBoard::of($this, $composer, $path);
    }

    public function covers(): bool
    {
        return false;
    }

    /**
     * @return list<WrittenElement>
     * @throws Refused
     */
    private static function elements(?Node $node): array
    {
        $elements = [];
        $ids = new UniqueIds();
        foreach ($node?->items(Kinds::MOST_INNER) ?? [] as $one) {
            $ids->take($one->field('id'));
            $elements[] = Kinds::inner($one);
        }

        return $elements;
    }

    /** @throws Refused */
    private static function continuedOf(?Node $node): ?Text
    {
        if ($node === null) {
            return null;
        }
        $node->object('text', 'rect', 'style');
        try {
            return Text::fromNode(Node::root(['id' => 'continued', 'kind' => Text::KIND, 'message' => true] + $node->fields()));
        } catch (Refused $e) {
            throw $e->under($node->path);
        }
    }

    /**
     * @return 'mark'|list<WrittenElement>|null
     * @throws Refused
     */
    private static function staleOf(?Node $node): string|array|null
    {
        return match (true) {
            $node === null => null,
            $node->value === 'mark' => 'mark',
            is_string($node->value) => throw $node->refused(Reason::ValueUnknown, 'is neither "mark" nor {"elements": [...]}.'),
            default => self::elements($node->object('elements')->field('elements')),
        };
    }
}
