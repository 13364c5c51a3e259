<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Clock;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;

/** The face of a clock with hands: the colour of hands and marks, that of its ground, and whether it has a hand for the seconds. */
final readonly class Dial
{
    private function __construct(public Colour $color, public ?Colour $ground, public bool $seconds)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'color' => Field::colour()->required(),
            'ground' => Field::colour(),
            'seconds' => Field::bool(),
        ])->named('Dial');
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());

        return new self(
            Colour::fromNode($node->field('color')),
            ($ground = $node->optional('ground')) ? Colour::fromNode($ground) : null,
            $node->optional('seconds')?->bool() ?? true,
        );
    }

    /** @return array{color: string, ground?: string, seconds: bool} */
    public function toArray(): array
    {
        return ['color' => $this->color->hex] + ($this->ground === null ? [] : ['ground' => $this->ground->hex]) + ['seconds' => $this->seconds];
    }
}
