<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Chart;

use UpperPane\Core\Data\Ticks;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** The axis of values of a chart, as it is written: open on either side, and about how many ticks. */
final readonly class Axis
{
    private const TICKS = 5;
    private const MOST_TICKS = 50;

    private function __construct(public ?float $from, public ?float $to, public int $ticks, public string $unit)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'from' => Field::number()->orNull(),
            'to' => Field::number()->orNull(),
            'ticks' => Field::int(1, self::MOST_TICKS)->saying('about how many'),
            'unit' => Field::text(0, 40)->saying('told behind the figures of the ticks'),
        ])->named('Axis');
    }

    /** @throws DocumentRefused */
    public static function fromNode(?Node $node): self
    {
        if ($node === null) {
            return new self(null, null, self::TICKS, '');
        }
        $node->object(...self::fields()->names());
        $end = static fn (string $name): ?float => ($given = $node->optional($name)) === null || $given->value === null ? null : $given->number();
        [$from, $to] = [$end('from'), $end('to')];
        if ($from !== null && $to !== null && $from >= $to) {
            throw $node->field('to')->refused(Reason::ValueRange, sprintf('is %s, no more than from, which is %s.', $to, $from));
        }

        return new self($from, $to, $node->optional('ticks')?->int(1, self::MOST_TICKS) ?? self::TICKS, $node->optional('unit')?->text(0, 40) ?? '');
    }

    /**
     * From where to where it goes for these values.
     *
     * @param list<float> $values
     * @return array{float, float}
     */
    public function range(array $values): array
    {
        return Ticks::axis($this->from, $this->to, $values === [] ? 0.0 : min($values), $values === [] ? 1.0 : max($values), $this->ticks);
    }
}
