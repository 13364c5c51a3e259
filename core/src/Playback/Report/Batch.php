<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Report;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;

/** What was seen, as a player sends it: the same again, under the same id, until it is told that it arrived. */
final readonly class Batch
{
    public const MOST = 200;

    /**
     * @param list<Seen> $seen
     * @param int $lost how many were thrown away before, for want of room
     */
    public function __construct(public string $id, public array $seen, public int $lost = 0)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields */
        static $fields;

        return $fields ??= Fields::of([
            'id' => Field::text(1, 64)->required()->saying('what arrives twice is counted once'),
            'lost' => Field::int(0)->saying('how many were thrown away, for want of room'),
            'seen' => Field::list(Field::object(Seen::fields()), self::MOST)->required(),
        ])->named('Batch');
    }

    /** @throws DocumentRefused */
    public static function read(Node $node): self
    {
        $node->object(...self::fields()->names());

        return new self($node->field('id')->text(1, 64), array_map(Seen::read(...), $node->field('seen')->items(self::MOST)), $node->optional('lost')?->int(0) ?? 0);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['id' => $this->id, 'lost' => $this->lost, 'seen' => array_map(static fn (Seen $one): array => $one->toArray(), $this->seen)];
    }
}
