<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger\Kind;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Sensor;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Trigger\Kind;
use UpperPane\Core\Trigger\Memory;
use UpperPane\Core\Trigger\Rank;
use UpperPane\Core\Trigger\Reading\Reading;
use UpperPane\Core\Trigger\Reading\Touched;

/** An area of the canvas is touched. */
final readonly class Touch implements Kind
{
    use Senses;
    use Unwaiting;

    private function __construct(public Rect $rect)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of(['rect' => Field::object(Rect::fields())->required()->saying('px of the canvas of what plays')]);
    }

    public static function fromNode(Node $node): self
    {
        return new self(Rect::fromNode($node->field('rect')));
    }

    public static function rank(): Rank
    {
        return Rank::Others;
    }

    public function hears(Reading $reading, Memory $memory, int $ms): ?array
    {
        $rect = $this->rect;

        return $reading instanceof Touched
            && $reading->x >= $rect->x && $reading->x < $rect->x + $rect->width && $reading->y >= $rect->y && $reading->y < $rect->y + $rect->height
            ? [$memory, true] : null;
    }

    public function compiled(\Closure $dueMs): array
    {
        return ['rect' => $this->rect->toArray()];
    }

    public function comesWith(Kind $other): bool
    {
        return $other instanceof self && $other->rect->intersection($this->rect) !== null;
    }

    public function lacks(Display $display): ?string
    {
        return self::kindLacking($display, Sensor::TOUCH);
    }

    public function raisedBy(): array
    {
        return ['touch' => ['x' => $this->rect->x + intdiv($this->rect->width, 2), 'y' => $this->rect->y + intdiv($this->rect->height, 2)]];
    }
}
