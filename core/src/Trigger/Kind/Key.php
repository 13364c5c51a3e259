<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Kind;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Sensor;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Trigger\Kind;
use UpperPane\Core\Trigger\Memory;
use UpperPane\Core\Trigger\Rank;
use UpperPane\Core\Trigger\Reading\KeyPressed;
use UpperPane\Core\Trigger\Reading\Reading;

/** A key is pressed, called as browsers call it (UI Events, `KeyboardEvent.key`). */
final readonly class Key implements Kind
{
    use Senses;
    use Unwaiting;

    private function __construct(public string $key)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of(['key' => Field::text(1, 80)->required()]);
    }

    public static function fromNode(Node $node): self
    {
        return new self($node->field('key')->text(1, 80));
    }

    public static function rank(): Rank
    {
        return Rank::Others;
    }

    public function hears(Reading $reading, Memory $memory, int $ms): ?array
    {
        return $reading instanceof KeyPressed && $reading->key === $this->key ? [$memory, true] : null;
    }

    public function compiled(\Closure $dueMs): array
    {
        return ['key' => $this->key];
    }

    public function comesWith(Kind $other): bool
    {
        return $other instanceof self && $other->key === $this->key;
    }

    public function lacks(Display $display): ?string
    {
        return self::kindLacking($display, Sensor::KEYS);
    }

    public function raisedBy(): array
    {
        return ['key' => $this->key];
    }
}
