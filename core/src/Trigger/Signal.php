<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

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

    private function __construct(public string $id, public ?string $name, public Kind $kind)
    {
    }

    /** What every signal has beside its kind. */
    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of(['id' => Field::pattern(TriggerMap::NAME)->required(), 'name' => Field::name()]);
    }

    /** @throws Refused */
    public static function fromNode(Node $node, Names $names): self
    {
        $class = Kinds::ALL[$node->field('kind')->oneOf(...array_keys(Kinds::ALL))];
        $node->object('kind', ...self::fields()->names(), ...$class::fields()->names());
        $id = $names->take($node->field('id'));
        if (in_array($id, self::OWN, true)) {
            throw $node->field('id')->refused(Reason::ValueRange, sprintf('is "%s", which no signal is called: a map says so by itself.', $id));
        }

        return new self($id, $node->optional('name')?->name(), $class::fromNode($node));
    }
}
