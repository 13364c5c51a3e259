<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;

/** Something that a map answers. */
final readonly class Signal
{
    /** What a map calls by itself. */
    public const OWN = ['lapse', 'start', 'error', 'done'];

    /** @param ?Rows $rows of which ways carry the first that is chosen then */
    private function __construct(public string $id, public ?string $name, public Kind $kind, public ?Rows $rows)
    {
    }

    /** What every signal has beside its kind. */
    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of(['id' => Field::pattern(TriggerMap::NAME)->required(), 'name' => Field::name()]);
    }

    /** What a signal of any kind may carry. */
    public static function carried(): Fields
    {
        return Fields::of(['rows' => Field::object(Rows::fields())->saying('a way that carries brings the first of these, unless a row comes with the signal')]);
    }

    /** @throws Refused */
    public static function fromNode(Node $node, Names $names): self
    {
        $class = Kinds::ALL[$node->field('kind')->oneOf(...array_keys(Kinds::ALL))];
        $node->object('kind', ...self::fields()->names(), ...$class::fields()->names(), ...self::carried()->names());
        $id = $names->take($node->field('id'));
        if (in_array($id, self::OWN, true)) {
            throw $node->field('id')->refused(Reason::ValueRange, sprintf('is "%s", which no signal is called: a map says so by itself.', $id));
        }

        return new self($id, $node->optional('name')?->name(), $class::fromNode($node), ($rows = $node->optional('rows')) === null ? null : Rows::fromNode($rows));
    }
}
