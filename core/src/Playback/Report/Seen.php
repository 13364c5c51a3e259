<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Report;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** What was really seen of one thing, or was to be seen and was not there: within a quarter of an hour, or added up. */
final readonly class Seen
{
    /** Offsets of local time are whole quarters of an hour, so that a day is made of whole ones. IANA time zones since 1972, from memory. */
    public const QUARTER_MS = 900_000;

    /**
     * @param string $id of its part, as in run sheets
     * @param string $element on the way through nested layouts
     * @param ?string $media name of its picture or film
     * @param int $firstMs when it was its turn first, and last: Unix ms
     * @param int $times how often it came to be seen
     * @param int $ms for how long it was seen, all in all
     * @param int $missed how often it was its turn and it was never there
     * @param int $missedMs for how long it was its turn and it was not there
     */
    public function __construct(
        public string $id,
        public string $element,
        public ?string $item,
        public ?string $media,
        public int $firstMs,
        public int $lastMs,
        public int $times,
        public int $ms,
        public int $missed,
        public int $missedMs,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields */
        static $fields;
        $instant = Field::text(1, 40);

        return $fields ??= Fields::of([
            'id' => Field::text(1, 2000)->required()->saying('of its part (release.md)'),
            'element' => Field::text(1, 2000)->required(),
            'item' => Field::text(1, 200)->orNull(),
            'media' => Field::text(1, 255)->orNull()->saying('name of its picture or film'),
            'quarter' => $instant->required()->saying('instant at which this quarter of an hour begins'),
            'first' => $instant->required()->saying('when it was its turn first'),
            'last' => $instant->required(),
            'times' => Field::int(0)->required()->saying('how often it came to be seen'),
            'ms' => Field::int(0)->required()->saying('for how long it was seen'),
            'missed' => Field::int(0)->required()->saying('how often it was its turn and it was never there'),
            'missed_ms' => Field::int(0)->required()->saying('for how long it was its turn and it was not there'),
        ])->named('Seen');
    }

    /** @throws DocumentRefused */
    public static function read(Node $node): self
    {
        $node->object(...self::fields()->names());
        $instant = static fn (string $field): int => Instant::parse($node->field($field)->text(1, 40), $node->field($field)->path)->ms;
        $instant('quarter');
        $within = static fn (string $field): int => $node->field($field)->int(0, 4 * self::QUARTER_MS, 'ms');

        return new self(
            $node->field('id')->text(1, 2000),
            $node->field('element')->text(1, 2000),
            $node->given('item')?->text(1, 200),
            $node->given('media')?->text(1, 255),
            $instant('first'),
            $instant('last'),
            $node->field('times')->int(0, self::QUARTER_MS),
            $within('ms'),
            $node->field('missed')->int(0, self::QUARTER_MS),
            $within('missed_ms'),
        );
    }

    /** The day on which it was seen, as `2026-06-01`, where it hangs. */
    public function day(WallClock $clock): string
    {
        return substr($clock->shown($this->firstMs), 0, 10);
    }

    /** Both together: the same thing at other times, or on another output. */
    public function and(self $other): self
    {
        return new self(
            $this->id,
            $this->element,
            $this->item,
            $this->media ?? $other->media,
            min($this->firstMs, $other->firstMs),
            max($this->lastMs, $other->lastMs),
            $this->times + $other->times,
            $this->ms + $other->ms,
            $this->missed + $other->missed,
            $this->missedMs + $other->missedMs,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id,
            'element' => $this->element,
            'item' => $this->item,
            'media' => $this->media,
            'quarter' => (string) Instant::ofMs(intdiv($this->firstMs, self::QUARTER_MS) * self::QUARTER_MS),
            'first' => (string) Instant::ofMs($this->firstMs),
            'last' => (string) Instant::ofMs($this->lastMs),
            'times' => $this->times,
            'ms' => $this->ms,
            'missed' => $this->missed,
            'missed_ms' => $this->missedMs,
        ];
    }
}
