<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Chart;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Rows\ChosenRows;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Data\Rows\RowField;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Compares;
use UpperPane\Core\Layout\Kind\Composable;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\ElementHead;
use UpperPane\Core\Layout\Kind\HasWords;
use UpperPane\Core\Layout\Kind\Head;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Told\InTurn;
use UpperPane\Core\Layout\Told\Reading;
use UpperPane\Core\Layout\Told\RowTeller;
use UpperPane\Core\Layout\Told\TakesTurns;
use UpperPane\Core\Layout\Told\TellsRows;
use UpperPane\Core\Layout\Type\ReadingTime;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Time\Turns;
use UpperPane\Core\Units\Instant;

/** Values of rows as columns, bars, a line or a gauge. */
final readonly class Chart implements WrittenElement, HasWords, Composable, Compares, TellsRows, TakesTurns
{
    use ElementHead;

    public const KIND = 'chart';
    public const GAUGE = 'gauge';
    public const BARS = 'bars';
    public const LINE = 'line';
    private const TYPES = ['columns', self::BARS, self::LINE, self::GAUGE];

    /**
     * @param ?string $category field whose value names a row
     * @param string $value field
     * @param list<Colour> $colours in turn; that of the style where there are none
     * @param ?Message $named how a row is named, where not by the category as it is
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $told rows that it tells
     */
    private function __construct(
        private Head $head,
        private Rows $rows,
        public string $type,
        public ?string $category,
        public string $value,
        public Axis $axis,
        public TextStyle $style,
        public array $colours,
        public bool $hasLabels,
        public ?Message $named,
        private array $told = [],
        private ?Reading $reading = null,
        private ?InTurn $inTurn = null,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'rows' => Field::object(Rows::fields())->required(),
            'type' => Field::oneOf(...self::TYPES)->required(),
            'category' => Field::pattern(RowField::NAME)->saying('field whose value names a row'),
            'named' => Field::text(1, 1_000, Role::Words)->saying('ICU MessageFormat over the fields of a row, by which it is named'),
            'value' => Field::pattern(RowField::NAME)->required(),
            'axis' => Field::object(Axis::fields()),
            'style' => TextStyle::field()->required(),
            'colours' => Field::list(Field::colour(), 50)->saying('in turn'),
            'labels' => Field::bool()->saying('whether rows are named; they are unless it says false'),
        ]);
    }

    public static function begun(Rect $rect, Size $canvas): array
    {
        return [
            'type' => 'columns',
            'value' => 'value',
            'style' => ['size_px' => max(12, (int) round(min($rect->height / 10, $canvas->height / 24)))] + TextStyle::begun($rect, $canvas, 0.1),
            'colours' => ['#f0c674'],
        ];
    }

    /** @throws Refused */
    public static function fromNode(Node $node): static
    {
        $head = Head::fromNode($node, self::fields());
        $rows = Rows::fromNode($node->field('rows'));
        $category = $node->optional('category');
        $value = $node->field('value');
        foreach ([$category, $value] as $named) {
            if ($named !== null) {
                $rows->known($named->text(1, 80), $named);
            }
        }

        return new self(
            $head,
            $rows,
            $node->field('type')->oneOf(...self::TYPES),
            $category?->text(1, 80),
            $value->text(1, 80),
            Axis::fromNode($node->optional('axis')),
            TextStyle::fromNode($node->field('style')),
            array_map(Colour::fromNode(...), $node->optional('colours')?->items(50) ?? []),
            $node->optional('labels')?->bool() ?? true,
            ($named = $node->optional('named')) ? Message::parse($named->text(1, 1_000), $named->path) : null,
        );
    }

    public function composed(Composer $composer, string $path): Element
    {
        $reading = $composer->reading($this->rows, "$path/rows", true);
        $at = fn (int $ms): self => $this->telling($reading, $ms, null);

        return $this->telling($reading, $reading->atMs, new InTurn($reading, $at, static fn (): ?int => null));
    }

    public function plan(?FaceMetrics $faces): ChartPlan
    {
        return ChartPlan::of($this, $this->told, $this->reading ?? throw new \LogicException('A chart is composed before it is drawn.'), $faces);
    }

    public function tells(): bool
    {
        return true;
    }

    public function messages(): array
    {
        return $this->named === null ? [] : [$this->named];
    }

    public function says(): string
    {
        return (string) json_encode((new ChosenRows(0, $this->told, []))->told());
    }

    public function told(RowTeller $row): static
    {
        return $this;
    }

    public function reads(): ?Reading
    {
        return $this->reading;
    }

    public function missing(): ?array
    {
        $missing = array_keys(array_filter($this->told, fn (array $row): bool => ($row[$this->value] ?? null) === null));

        return $missing === [] ? null : ['names' => [$this->value], 'count' => count($missing), 'row' => $missing[0]];
    }

    public function dataTurns(): ?Turns
    {
        return $this->inTurn?->turns();
    }

    public function inLanguages(): null
    {
        return null;
    }

    public function inTurn(): ?InTurn
    {
        return $this->inTurn;
    }

    public function words(FaceMetrics $faces): array
    {
        $words = [];
        foreach ($this->reading === null ? [] : $this->plan($faces)->parts as $one) {
            if ($one->style !== null) {
                $words[] = Text::within($this, $one->rect, $one->text, $one->style)->ownedBy($this, $one->part);
            }
        }

        return $words;
    }

    public function styles(): array
    {
        return [$this->style];
    }

    public function wordCount(): int
    {
        return !$this->hasLabels || $this->reading === null ? 0 : array_sum(array_map(ReadingTime::wordsOf(...), $this->names($this->reading)));
    }

    /** @return list<string> by which its rows are named */
    public function names(Reading $reading): array
    {
        return array_map(fn (array $row): string => match (true) {
            $this->named !== null => $reading->teller($row)->tell($this->named),
            $this->category === null => '',
            default => $reading->formats->told($row[$this->category] ?? null, null, '') ?? '–',
        }, $this->told);
    }

    public function title(): string
    {
        return $this->id();
    }

    public function changesFrom(Element $before): array
    {
        return $before instanceof self && json_encode(array_diff_key($before->head->given, ['rect' => 1])) !== json_encode(array_diff_key($this->head->given, ['rect' => 1]))
            ? [sprintf('"%s" tells its values otherwise.', $this->id())]
            : [];
    }

    public function covers(): bool
    {
        return false;
    }

    private function telling(Reading $reading, int $ms, ?InTurn $inTurn): self
    {
        return new self(
            $this->head,
            $this->rows,
            $this->type,
            $this->category,
            $this->value,
            $this->axis,
            $this->style,
            $this->colours,
            $this->hasLabels,
            $this->named,
            $reading->rowsAt($ms),
            $reading,
            $inTurn,
        );
    }
}
