<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Rows;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Path\JsonPath;
use UpperPane\Core\Data\Tree\Trees;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Units\Sweeping;
use UpperPane\Core\Units\WallClock;

/** Which rows of a source are chosen: where in its tree they stand, their fields, what has to hold, their order, and how many at the most. */
final readonly class Rows
{
    public const FORMAT = 'upper-pane/rows@1';

    /** Of rows that state none. */
    private const LANGUAGE = 'en';

    private const MOST_FIELDS = 200;
    /** So many rows tell whether their fields are there. */
    private const LOOKED_AT = 200;
    private const MOST_CONDITIONS = 100;

    /**
     * @param ?array<string, RowField> $fields null for all that the rows have
     * @param list<Condition> $where
     * @param list<array{string, bool}> $sort field, and whether it falls
     */
    private function __construct(
        public string $source,
        private JsonPath $path,
        private ?array $fields,
        private array $where,
        private array $sort,
        private ?string $language,
        private ?int $limit,
        private string $key,
    ) {
    }

    /**
     * The same where a row was carried that conditions name values of.
     *
     * @param array<string, mixed> $row
     */
    public function carrying(array $row): self
    {
        if (array_filter($this->where, static fn (Condition $one): bool => $one->isCarried()) === []) {
            return $this;
        }
        $where = array_map(static fn (Condition $one): Condition => $one->carrying($row), $this->where);

        return new self($this->source, $this->path, $this->fields, $where, $this->sort, $this->language, $this->limit, $this->key . ' ' . serialize($row));
    }

    /** The same for rows that are chosen alike. */
    public function key(): string
    {
        return $this->key;
    }

    /** In which it is sorted, and told where nobody says another. */
    public function language(): string
    {
        return $this->language ?? self::LANGUAGE;
    }

    /** Null where none is stated. */
    public function statedLanguage(): ?string
    {
        return $this->language;
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'source' => Field::id(Role::Source)->required(),
            'path' => Field::text(1, JsonPath::LONGEST),
            'fields' => Field::map(RowField::field()),
            'where' => Field::list(Condition::field(), self::MOST_CONDITIONS),
            'sort' => Field::list(Field::object(Fields::of(['by' => Field::pattern(RowField::NAME)->required(), 'descending' => Field::bool()])), 20),
            'language' => Field::pattern(Field::LANGUAGE),
            'limit' => Field::int(0, Trees::MOST_ROWS),
        ])->named('Rows');
    }

    /** Of a file of its own. */
    public static function ofFile(): Fields
    {
        return Fields::of(['format' => Field::constant(self::FORMAT)->required()])->and(self::fields()->all());
    }

    /** @throws Refused */
    public static function fromFile(Node $node): self
    {
        $node->format(self::FORMAT);
        $node->object(...self::ofFile()->names());

        return self::read($node);
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());

        return self::read($node);
    }

    /** @throws Refused */
    private static function read(Node $node): self
    {
        $path = $node->optional('path');
        $fields = self::fieldsOf($node->optional('fields'));
        $where = array_map(Condition::fromNode(...), $node->optional('where')?->items(self::MOST_CONDITIONS) ?? []);
        foreach ($where as $index => $condition) {
            self::hold($fields, $condition->field, $node->field('where')->items()[$index]->field('field'));
        }
        $sort = [];
        foreach ($node->optional('sort')?->items(20) ?? [] as $one) {
            $one->object('by', 'descending');
            $by = $one->field('by');
            self::hold($fields, $by->text(1, 80), $by);
            $sort[] = [$by->text(1, 80), $one->optional('descending')?->bool() ?? false];
        }

        return new self(
            $node->field('source')->id(),
            JsonPath::parse($path?->text(1, JsonPath::LONGEST) ?? '$[*]', $path === null ? '' : $path->path),
            $fields,
            $where,
            $sort,
            self::languageOf($node->optional('language')),
            $node->optional('limit')?->int(0, Trees::MOST_ROWS),
            (string) json_encode($node->value),
        );
    }

    /**
     * Holds that a field is one that the rows have, as far as they say which.
     *
     * @param Node $at where it is named
     * @throws DocumentRefused
     */
    public function known(string $name, Node $at): void
    {
        self::hold($this->fields, $name, $at);
    }

    /**
     * @param ?array<string, RowField> $fields
     * @throws DocumentRefused
     */
    private static function hold(?array $fields, string $name, Node $at): void
    {
        if ($fields !== null && !isset($fields[$name])) {
            throw $at->refused(Reason::ValueUnknown, sprintf('is "%s", which is none of the fields; there are %s.', $name, $fields === [] ? 'none' : implode(', ', array_keys($fields))));
        }
    }

    /**
     * What of these rows is not there any more in a tree, though it was in an earlier one: the way to them, or every one of their fields.
     *
     * @return ?string a path; null where they are there, were not there before either, or there are none just now
     * @throws Refused where finding them would take too many steps
     */
    public function lost(mixed $before, mixed $now): ?string
    {
        $lost = $this->path->lost($before, $now);
        if ($lost !== null || $this->fields === null || $this->fields === []) {
            return $lost;
        }
        [$old, $new] = array_map(fn (mixed $tree): array => array_slice($this->path->nodes($tree), 0, self::LOOKED_AT), [$before, $now]);
        $isIn = fn (array $rows): bool => array_filter($rows, fn (mixed $row): bool => array_filter($this->fields ?? [], static fn (RowField $one): bool => $one->isIn($row)) !== []) !== [];

        return $new !== [] && $isIn($old) && !$isIn($new) ? $this->path->text . substr($this->fields[array_key_first($this->fields)]->path(), 1) : null;
    }

    /** @return array<string, ?string> what missing values are told by, by field; null where nothing is said */
    public function fallbacks(): array
    {
        return array_map(static fn (RowField $field): ?string => $field->fallback, $this->fields ?? []);
    }

    /**
     * All rows of the path with their values, and when each is chosen.
     *
     * @param WallClock $clock on which times of no zone, and the midnights of dates, are meant
     * @param ?string $sourceZone of the source
     * @throws Refused where the path takes too long, or finds too many
     */
    public function of(mixed $tree, WallClock $clock, ?string $sourceZone = null): Table
    {
        return Sweeping::without(fn (): Table => $this->table($tree, new Clocks($clock, $sourceZone)));
    }

    /** @throws Refused */
    private function table(mixed $tree, Clocks $clocks): Table
    {
        $nodes = $this->path->nodes($tree);
        Trees::holdRows(count($nodes), 'rows at that path');
        $fields = $this->fields ?? self::foundIn($nodes);
        $unreadable = 0;
        $rows = [];
        $spans = [];
        $names = array_keys($fields);
        foreach ($nodes as $node) {
            $row = [];
            foreach ($fields as $name => $field) {
                [$row[$name], $isWrong] = $field->value($node, $clocks);
                $unreadable += $isWrong ? 1 : 0;
            }
            [$from, $to] = [PHP_INT_MIN, PHP_INT_MAX];
            foreach ($this->where as $condition) {
                $value = $row[$condition->field] ?? null;
                if ($condition->dependsOnTime()) {
                    $span = $condition->span($value, $clocks->own);
                    [$from, $to] = [max($from, $span[0]), min($to, $span[1])];
                } elseif (!$condition->holds($value)) {
                    continue 2;
                }
            }
            if ($from < $to) {
                $rows[] = $row;
                $spans[] = [$from, $to];
            }
        }
        $order = $this->sort === [] ? array_keys($rows) : (new Order($this->sort, $this->language()))->of($rows);

        return new Table(
            $names,
            array_map(static fn (int $place): array => $rows[$place], $order),
            array_map(static fn (int $place): array => $spans[$place], $order),
            $unreadable,
            count($nodes),
            $this->limit,
        );
    }

    /**
     * Every member of a row that a field may be called like, and that is a text, a number or a boolean somewhere.
     *
     * @param list<mixed> $nodes
     * @return array<string, RowField>
     */
    private static function foundIn(array $nodes): array
    {
        $fields = [];
        foreach ($nodes as $node) {
            if (!$node instanceof \stdClass) {
                $fields['value'] ??= RowField::member('value');
                continue;
            }
            foreach (get_object_vars($node) as $name => $value) {
                $name = (string) $name;
                if (!isset($fields[$name]) && is_scalar($value) && preg_match('/' . RowField::NAME . '/D', $name) === 1) {
                    $fields[$name] = RowField::member($name);
                }
            }
        }

        return $fields;
    }

    /**
     * @return ?array<string, RowField>
     * @throws Refused
     */
    private static function fieldsOf(?Node $node): ?array
    {
        if ($node === null) {
            return null;
        }
        $fields = [];
        foreach ($node->members(self::MOST_FIELDS) as $name => $one) {
            if (preg_match('/' . RowField::NAME . '/D', $name) !== 1 || strlen($name) > 80) {
                throw $one->refused(Reason::ValueRange, 'has a name that a message could not say; letters, figures and underscores are right, a letter first.');
            }
            if (str_starts_with($name, Formats::PLACE)) {
                throw $one->refused(Reason::ValueRange, sprintf('is called "%s"; what begins with %s is told by the place.', $name, Formats::PLACE));
            }
            $fields[$name] = RowField::fromNode($one);
        }

        return $fields;
    }

    /** @throws DocumentRefused */
    private static function languageOf(?Node $node): ?string
    {
        $language = $node?->text(1, 40);
        if ($node !== null && $language !== null && preg_match('/' . Field::LANGUAGE . '/D', $language) !== 1) {
            throw $node->refused(Reason::ValueRange, sprintf('is "%s"; a language such as en or pt-PT is right.', $language));
        }

        return $language;
    }
}
