<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Time\Schedule\Played;

/** What stands in the place of all else: nothing below it is drawn, and no sound of it heard. */
final readonly class Takeover implements Kind
{
    private function __construct(public Played $plays, public string $reason, public FitMode $fit)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'plays' => Played::field()->required(),
            'reason' => Field::name(500)->required(),
            'fit' => Field::oneOf(...FitMode::names()),
        ]);
    }

    public static function fromNode(Node $node): self
    {
        return new self(
            Played::fromNode($node->field('plays')),
            $node->field('reason')->name(500),
            FitMode::from($node->optional('fit')?->oneOf(...FitMode::names()) ?? FitMode::Contain->value),
        );
    }

    public static function mayFollow(): bool
    {
        return true;
    }

    public function elsewhere(): array
    {
        return [];
    }
}
