<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Time\When;

/** What every kind of element has: its id, its rectangle in canvas px, and whether it is left out for the time being. */
final readonly class Head
{
    /**
     * @param array<string, mixed> $given the whole element, as it was read
     * @param ?When $when it is drawn; null for always
     */
    private function __construct(public string $id, public Rect $rect, public bool $hidden, public bool $locked, public array $given, public ?When $when = null)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'id' => Field::id()->required(),
            'kind' => Field::text()->required(),
            'name' => Field::name(),
            'rect' => Field::object(Rect::fields())->required(),
            'hidden' => Field::bool()->saying('left out for the time being: neither drawn nor checked'),
            'locked' => Field::bool()->saying('hands leave it alone'),
            'group' => Field::id(Role::Group)->saying('elements of one group are chosen together'),
            'when' => When::field(),
        ]);
    }

    /**
     * @param Fields $own the fields that this kind has beside these
     * @throws Refused on a field that this kind does not have
     */
    public static function fromNode(Node $node, Fields $own): self
    {
        $node->object(...self::fields()->names(), ...$own->names());
        $node->optional('name')?->name();
        $node->optional('group')?->id();
        /** @var array<string, mixed> $given an object has names */
        $given = is_array($node->value) ? $node->value : [];

        return new self(
            $node->field('id')->id(),
            Rect::fromNode($node->field('rect')),
            $node->optional('hidden')?->bool() ?? false,
            $node->optional('locked')?->bool() ?? false,
            $given,
            ($when = $node->optional('when')) ? When::fromNode($when) : null,
        );
    }

    public static function of(string $id, Rect $rect): self
    {
        return new self($id, $rect, false, false, []);
    }
}
