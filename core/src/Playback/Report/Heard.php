<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Report;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Units\Instant;

/** Something that a sensor said, or that was pressed, before a display: what it is called is learnt from it, and never typed. */
final readonly class Heard
{
    public const MOST = 40;

    /** What is said may be of these; one button, key or band is one thing, distances of one sensor are one, and so are touches. */
    private const KEYS = ['sensor', 'button', 'band', 'mm', 'key', 'signal', 'source', 'field', 'value', 'touch'];

    /**
     * @param array<string, string|int|float|bool|null> $said an entry of a trace without `at`, as it came last
     * @param int $times how often since the page of the player began
     * @param bool $known whether any map that runs there could have heard it
     */
    public function __construct(public array $said, public Instant $last, public int $times, public bool $known)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields */
        static $fields;

        return $fields ??= Fields::of([
            'said' => Field::map(Field::either(Field::text(0, 80), Field::number(), Field::bool(), Field::nothing()), count(self::KEYS))->required()->saying('as an agent takes it'),
            'last' => Field::text(1, 40)->required()->saying('instant at which it came last'),
            'times' => Field::int(1)->required()->saying('since the page began'),
            'known' => Field::bool()->required()->saying('whether any map that runs there could hear it'),
        ])->named('Heard');
    }

    /** @throws DocumentRefused */
    public static function read(Node $node): self
    {
        $node->object(...self::fields()->names());
        $said = [];
        foreach ($node->field('said')->object(...self::KEYS)->fields() as $name => $value) {
            // What sensors send may be anything; as much of it is told as names it.
            $said[(string) $name] = match (true) {
                is_string($value) => mb_strimwidth($value, 0, 80, '…'),
                is_int($value), is_float($value), is_bool($value), $value === null => $value,
                default => '…',
            };
        }
        $last = $node->field('last');

        return new self($said, Instant::parse($last->text(1, 40), $last->path), $node->field('times')->int(1), $node->field('known')->bool());
    }

    /**
     * What is remembered of what was heard, also where the page of a player began anew since.
     *
     * @param list<self> $before
     * @param list<self> $now what counts where both tell of the same
     * @return list<self> the last first
     */
    public static function together(array $before, array $now): array
    {
        $all = [];
        foreach ([...$now, ...$before] as $one) {
            $all[$one->key()] ??= $one;
        }
        usort($all, static fn (self $a, self $b): int => $b->last->ms <=> $a->last->ms);

        return array_slice($all, 0, self::MOST);
    }

    /** The same for what is one thing. */
    private function key(): string
    {
        $named = $this->said;
        foreach (['mm', 'value', 'touch'] as $figure) {
            if (array_key_exists($figure, $named)) {
                $named[$figure] = null;
            }
        }
        ksort($named);

        return serialize($named);
    }

    /** @return array{said: array<string, string|int|float|bool|null>, last: string, times: int, known: bool} */
    public function toArray(): array
    {
        return ['said' => $this->said, 'last' => (string) $this->last, 'times' => $this->times, 'known' => $this->known];
    }
}
