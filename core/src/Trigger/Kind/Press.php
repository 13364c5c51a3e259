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
use UpperPane\Core\Trigger\Reading\Pressed;
use UpperPane\Core\Trigger\Reading\Reading;

/** A button is pressed. */
final readonly class Press implements Kind
{
    use Senses;
    use Unwaiting;

    private function __construct(public string $sensor, public string $button)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of(['sensor' => Field::id()->required(), 'button' => Field::text(1, 80)->required()]);
    }

    public static function fromNode(Node $node): self
    {
        return new self($node->field('sensor')->id(), $node->field('button')->text(1, 80));
    }

    public static function rank(): Rank
    {
        return Rank::Others;
    }

    public function hears(Reading $reading, Memory $memory, int $ms): ?array
    {
        return $reading instanceof Pressed && $reading->sensor === $this->sensor && $reading->button === $this->button ? [$memory, true] : null;
    }

    public function compiled(\Closure $dueMs): array
    {
        return ['sensor' => $this->sensor, 'button' => $this->button];
    }

    public function comesWith(Kind $other): bool
    {
        return $other instanceof self && $other->sensor === $this->sensor && $other->button === $this->button;
    }

    public function lacks(Display $display): ?string
    {
        $buttons = $display->sensor($this->sensor)?->buttons;

        return self::sensorLacking($display, $this->sensor, Sensor::BUTTONS)
            ?? ($buttons === null || in_array($this->button, $buttons, true) ? null : sprintf(
                'has no button "%s" at "%s"; it has %s',
                $this->button,
                $this->sensor,
                $buttons === [] ? 'none' : implode(', ', array_map(static fn (string $one): string => "\"$one\"", $buttons)),
            ));
    }

    public function raisedBy(): array
    {
        return ['sensor' => $this->sensor, 'button' => $this->button];
    }
}
