<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Time\Schedule\Played;

/** A sign with a hole in it, through which what plays goes on. */
final readonly class Window implements Kind
{
    private function __construct(public Played $plays, public int $volume, public int $programmeVolume)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'plays' => Played::field()->required()->saying('a layout with an element of kind programme, or a picture with a transparent part'),
            'volume' => Field::int(0, 100)->saying('percent; the louder of the two is heard, of equals the window'),
            'programme_volume' => Field::int(0, 100)->saying('percent, of what goes on in it'),
        ]);
    }

    public static function fromNode(Node $node): self
    {
        $plays = Played::fromNode($node->field('plays'));
        if ($plays->kind === 'playlist') {
            throw $node->field('plays')->field('playlist')->refused(Reason::ValueUnknown, 'is a playlist; a layout with an element of kind programme, or a picture, is right.');
        }

        return new self($plays, $node->optional('volume')?->int(0, 100) ?? 0, $node->optional('programme_volume')?->int(0, 100) ?? 100);
    }

    /** Of the two the louder is heard, of equals the window; percent of what each of its films is. */
    public function heard(): int
    {
        return $this->volume >= $this->programmeVolume ? $this->volume : 0;
    }

    /** How much of what goes on in it is heard, percent. */
    public function programmeHeard(): int
    {
        return $this->volume >= $this->programmeVolume ? 0 : $this->programmeVolume;
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
