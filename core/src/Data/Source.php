<?php

declare(strict_types=1);

namespace UpperPane\Core\Data;

use UpperPane\Core\Data\Tree\ReadOptions;
use UpperPane\Core\Data\Tree\Trees;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\UtcOffsets;

/** Where data come from: an address, a file, or a table that is kept in the document itself; how they are read, how often they are fetched, and when they are too old. */
final readonly class Source
{
    public const FORMAT = 'upper-pane/source@1';

    /** How often and how long: from every 10 s to once in 31 days. */
    private const LEAST_EVERY_S = 10;
    private const MOST_EVERY_S = 2_678_400;
    private const MOST_TIMEOUT_S = 120;

    /** Where nothing is said. Common practice, no source. */
    private const EVERY_S = 300;
    private const TIMEOUT_S = 20;

    private const MOST_AGE_S = 31_536_000;
    private const MOST_ROWS = 5_000;
    private const LONGEST_ADDRESS = 2_000;

    /** @param array<mixed> $from as it was read */
    private function __construct(
        public string $id,
        public string $name,
        public array $from,
        public ?string $as,
        public ?string $zone,
        public ?int $everyS,
        public ?int $timeoutS,
        public ?int $staleAfterS,
        private ?Node $options,
    ) {
    }

    public static function fields(): Fields
    {
        $cell = Field::either(Field::text(0, 2_000)->orNull(), Field::number(), Field::bool());

        return Fields::of([
            'format' => Field::constant(self::FORMAT)->required(),
            'id' => Field::id()->required(),
            'name' => Field::name()->required(),
            'from' => Field::either(
                Field::object(Fields::of(['address' => Field::pattern('^https?://')->required()])),
                Field::object(Fields::of(['file' => Field::name()->required()])),
                Field::object(Fields::of(['table' => Field::list(Field::map($cell), self::MOST_ROWS)->required()])),
            )->required(),
            'as' => Field::oneOf(...array_keys(Trees::READERS)),
            'options' => Field::object(ReadOptions::fields()),
            'zone' => Field::text(1, 80)->saying('of the tz database, on whose clock times are meant that say no other'),
            'every_s' => Field::int(self::LEAST_EVERY_S, self::MOST_EVERY_S),
            'timeout_s' => Field::int(1, self::MOST_TIMEOUT_S),
            'stale_after_s' => Field::int(1, self::MOST_AGE_S)->saying('data that are older are told as such'),
        ]);
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        $node->format(self::FORMAT);
        $node->object(...self::fields()->names());
        $from = $node->field('from');
        $from->object('address', 'file', 'table');
        if (!is_array($from->value) || count($from->value) !== 1) {
            throw $from->refused(Reason::ValueRange, 'says one of address, file and table.');
        }
        $from->optional('file')?->name();
        $address = $from->optional('address');
        $url = $address?->text(1, self::LONGEST_ADDRESS);
        if ($address !== null && ($url === null || preg_match('~^https?://[^\s/?#@]+(?:[/?#]\S*)?$~Di', $url) !== 1)) {
            throw $address->refused(Reason::ValueRange, 'is no address that is fetched; one such as https://quay.example/sailings.json is right, without a user in it.');
        }
        foreach ($from->optional('table')?->items(self::MOST_ROWS) ?? [] as $row) {
            foreach ($row->members(200) as $cell) {
                if (!is_scalar($cell->value) && $cell->value !== null) {
                    throw $cell->refused(Reason::TypeWrong, 'is neither a text, a number, true, false nor null.');
                }
            }
        }
        $zone = $node->optional('zone');
        $options = $node->optional('options');
        ReadOptions::of($options);

        return new self(
            $node->field('id')->id(),
            $node->field('name')->name(),
            $from->value,
            $node->optional('as')?->oneOf(...array_keys(Trees::READERS)),
            $zone === null ? null : UtcOffsets::name($zone),
            $node->optional('every_s')?->int(self::LEAST_EVERY_S, self::MOST_EVERY_S, 's'),
            $node->optional('timeout_s')?->int(1, self::MOST_TIMEOUT_S, 's'),
            $node->optional('stale_after_s')?->int(1, self::MOST_AGE_S, 's'),
            $options,
        );
    }

    /**
     * @param string $timezone in which floating times of a calendar are meant, unless the source says one
     * @param int $atMs for which it is read, Unix ms
     */
    public function options(string $timezone, int $atMs): ReadOptions
    {
        return ReadOptions::of($this->options, $this->zone ?? $timezone, $atMs);
    }

    public function address(): ?string
    {
        return is_string($this->from['address'] ?? null) ? $this->from['address'] : null;
    }

    /** After how many ms it is fetched again; null of one that is not fetched. */
    public function everyMs(): ?int
    {
        return $this->address() === null ? null : 1000 * ($this->everyS ?? self::EVERY_S);
    }

    public function timeoutS(): int
    {
        return $this->timeoutS ?? self::TIMEOUT_S;
    }

    /** The tree of what stands in the document itself; null where it comes from elsewhere. */
    public function table(): mixed
    {
        return isset($this->from['table']) && is_array($this->from['table'])
            ? array_map(static fn (mixed $row): \stdClass => (object) $row, array_values($this->from['table']))
            : null;
    }
}
