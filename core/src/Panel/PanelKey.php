<?php

declare(strict_types=1);

namespace UpperPane\Core\Panel;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Time\Schedule\Played;

/** A key of an operator's panel: it asks a display for a signal, or puts something on it, or on one zone of it. */
final readonly class PanelKey
{
    /** A year. */
    private const MOST_MIN = 525_600;
    private const MOST_FIELDS = 6;

    /**
     * @param string $display id
     * @param ?string $signal of a map of triggers that runs there; null where it plays something
     * @param ?string $zone of what plays there; null for the whole display
     * @param ?int $forMin how long it stands, min; null until another key takes its place or it is ended
     * @param ?string $press on the keyboard of whoever has the panel open
     * @param ?string $colour as in documents: hex, or @ and its name in the house style
     * @param list<string> $fields by which the rows are told that its signal may bring; none for the first three
     */
    private function __construct(
        public string $id,
        public string $name,
        public string $display,
        public ?string $signal,
        public ?Played $plays,
        public ?string $zone,
        public ?int $forMin,
        public ?string $press,
        public ?string $colour,
        public array $fields,
        public string $path,
    ) {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'id' => Field::id()->required(),
            'name' => Field::name(80)->required(),
            'display' => Field::id()->required(),
            'signal' => Field::id()->saying('an operator signal of a map of triggers that runs there'),
            'plays' => Played::field()->saying('booked there before all else, from the press on'),
            'zone' => Field::id()->saying('of what plays there; without it the whole display'),
            'for_min' => Field::int(1, self::MOST_MIN)->saying('without it until another key takes its place, or it is ended'),
            'press' => Field::pattern('^([^\s]|F([1-9]|1[0-2]))$')->saying('key of the keyboard that presses it'),
            'colour' => Field::colour(),
            'fields' => Field::list(Field::text(1, 200), self::MOST_FIELDS)->saying('by which the rows are told that its signal may bring; without them the first three'),
        ])->named('PanelKey');
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        [$signal, $plays] = [$node->optional('signal'), $node->optional('plays')];
        if (($signal === null) === ($plays === null)) {
            throw $node->refused(Reason::ValueRange, $signal === null ? 'does nothing; a signal, or what it plays, is right.' : 'asks for a signal and plays something; one of them is right.');
        }
        foreach ($signal === null ? ['fields'] : ['zone', 'for_min'] as $other) {
            $given = $node->optional($other);
            if ($given !== null) {
                throw $given->refused(Reason::FieldUnknown, $signal === null ? 'is for keys that ask for a signal.' : 'is for keys that play something.');
            }
        }
        $press = $node->optional('press');
        if ($press !== null && preg_match('/^([^\s\p{C}]|F([1-9]|1[0-2]))$/Du', $press->text(1, 8)) !== 1) {
            throw $press->refused(Reason::ValueRange, sprintf('is "%s"; one sign, or F1 to F12, is right.', $press->text(1, 8)));
        }

        return new self(
            $node->field('id')->id(),
            $node->field('name')->name(80),
            $node->field('display')->id(),
            $signal?->id(),
            $plays === null ? null : Played::fromNode($plays),
            $node->optional('zone')?->id(),
            $node->optional('for_min')?->int(1, self::MOST_MIN, 'min'),
            $press?->text(1, 8),
            $node->optional('colour')?->text(1, 80),
            array_map(static fn (Node $one): string => $one->text(1, 200), $node->optional('fields')?->items(self::MOST_FIELDS) ?? []),
            $node->path,
        );
    }
}
