<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;

/** The lines that a designer draws for her own hands, canvas px, and the margin that she keeps free at each edge; nobody sees them on a display. */
final readonly class Guides
{
    private const MOST = 200;

    /**
     * @param array{x?: list<int>, y?: list<int>}|null $lines
     * @param ?int $safe px
     */
    private function __construct(private ?array $lines, private ?int $safe)
    {
    }

    /** As they stand in a layout, or in a variant of one. */
    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;
        $lines = Field::list(Field::int(-Size::LONGEST, Size::LONGEST), self::MOST);


        return $fields ??= Fields::of([
            'guides' => Field::object(Fields::of(['x' => $lines, 'y' => $lines])->named('Guides'))->saying('lines for the hand, canvas px'),
            'safe' => Field::int(0, Size::LONGEST)->saying('margin that is kept free at each edge, px'),
        ]);
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $layout): self
    {
        $guides = $layout->optional('guides')?->object('x', 'y');
        $lines = $guides === null ? null : [];
        foreach (['x', 'y'] as $axis) {
            $given = $guides?->optional($axis);
            if ($given !== null) {
                $lines[$axis] = array_map(static fn (Node $line): int => $line->int(-Size::LONGEST, Size::LONGEST, 'px'), $given->items(self::MOST));
            }
        }

        return new self($lines, $layout->optional('safe')?->int(0, Size::LONGEST, 'px'));
    }

    public static function none(): self
    {
        return new self(null, null);
    }

    /** Where they lie on a canvas of another size, to whole px. */
    public function scaled(Size $from, Size $to): self
    {
        [$across, $down] = [$to->width / $from->width, $to->height / $from->height];
        $lines = $this->lines;
        foreach (['x' => $across, 'y' => $down] as $axis => $factor) {
            if (isset($lines[$axis])) {
                $lines[$axis] = array_map(static fn (int $px): int => (int) round($px * $factor), $lines[$axis]);
            }
        }

        return new self($lines, $this->safe === null ? null : (int) round($this->safe * min($across, $down)));
    }

    /** @return array{guides?: array<string, list<int>>, safe?: int} the fields of the layout */
    public function toArray(): array
    {
        return ($this->lines === null ? [] : ['guides' => $this->lines]) + ($this->safe === null ? [] : ['safe' => $this->safe]);
    }
}
