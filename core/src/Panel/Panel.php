<?php

declare(strict_types=1);

namespace UpperPane\Core\Panel;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** An operator's panel: keys in groups. What stands because of them is no part of it. */
final readonly class Panel
{
    public const FORMAT = 'upper-pane/panel@1';
    private const MOST_GROUPS = 40;
    private const MOST_KEYS = 60;

    /**
     * @param list<array{name: string, keys: list<PanelKey>}> $groups
     * @param array<string, PanelKey> $keys of all groups, by id
     */
    private function __construct(public string $id, public string $name, public array $groups, public array $keys)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'format' => Field::constant(self::FORMAT)->required(),
            'id' => Field::id()->required(),
            'name' => Field::name()->required(),
            'groups' => Field::list(Field::object(Fields::of([
                'name' => Field::text(0, 80)->required(),
                'keys' => Field::list(Field::object(PanelKey::fields()), self::MOST_KEYS)->required(),
            ])->named('PanelGroup')), self::MOST_GROUPS)->required(),
        ]);
    }

    /**
     * @param array<mixed> $document in the format `upper-pane/panel@1`
     * @throws DocumentRefused
     */
    public static function fromArray(array $document): self
    {
        $node = Node::root($document);
        $node->object(...self::fields()->names());
        $node->format(self::FORMAT);
        [$groups, $keys, $pressed] = [[], [], []];
        foreach ($node->field('groups')->items(self::MOST_GROUPS) as $group) {
            $group->object('name', 'keys');
            $own = array_map(PanelKey::fromNode(...), $group->field('keys')->items(self::MOST_KEYS));
            foreach ($own as $key) {
                if (isset($keys[$key->id])) {
                    throw Node::at($key->id, "$key->path/id")->refused(Reason::IdTwice, sprintf('is "%s", as another key is called.', $key->id));
                }
                $keys[$key->id] = $key;
                // Whoever types does not mind whether it is a capital.
                $press = $key->press === null ? null : mb_strtolower($key->press);
                if ($press !== null && isset($pressed[$press])) {
                    throw Node::at($key->press, "$key->path/press")->refused(Reason::ValueRange, sprintf('is "%s", which presses "%s" already.', $key->press, $pressed[$press]));
                }
                if ($press !== null) {
                    $pressed[$press] = $key->name;
                }
            }
            $groups[] = ['name' => $group->field('name')->text(0, 80), 'keys' => $own];
        }

        return new self($node->field('id')->id(), $node->field('name')->name(), $groups, $keys);
    }
}
