<?php

declare(strict_types=1);

namespace UpperPane\Core\Setting;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\UniqueIds;

/** Places within places, displays in them, and what each of them states: the nearest decides, the display before its place. */
final class Estate
{
    public const FORMAT = 'upper-pane/estate@1';
    private const MOST = 100_000;

    /** @var array<string, Resolved> by id of the place, once it has been asked for */
    private array $resolved = [];

    /**
     * @param array<string, array{?string, Settings}> $places by id: the place above, and what it states
     * @param array<string, array{string, Settings}> $displays by id: the place, and what it states itself
     */
    private function __construct(private readonly array $places, private readonly array $displays)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'format' => Field::constant(self::FORMAT)->required(),
            'id' => Field::id()->required(),
            'name' => Field::name()->required(),
            'places' => Field::list(Field::object(Fields::of([
                'id' => Field::id()->required(),
                'name' => Field::name(),
                'parent' => Field::id()->saying('the place in which it lies'),
                'settings' => Field::object(Settings::fields(false)),
            ])->named('PlaceOfEstate')), self::MOST)->required(),
            'displays' => Field::list(Field::object(Fields::of([
                'id' => Field::id()->required(),
                'name' => Field::name(),
                'place' => Field::id()->required(),
                'settings' => Field::object(Settings::fields()),
            ])->named('DisplayOfEstate')), self::MOST),
        ]);
    }

    /**
     * @param array<mixed> $document in the format `upper-pane/estate@1`
     * @throws DocumentRefused
     */
    public static function fromArray(array $document): self
    {
        $node = Node::root($document);
        $node->object(...self::fields()->names());
        $node->format(self::FORMAT);
        $node->field('id')->id();
        $node->field('name')->name();
        [$places, $displays, $ids] = [[], [], new UniqueIds()];
        $nodes = $node->field('places')->items(self::MOST);
        foreach ($nodes as $place) {
            $place->object('id', 'name', 'parent', 'settings');
            $place->optional('name')?->name();
            $places[$ids->take($place->field('id'))] = [$place->optional('parent')?->id(), Settings::fromNode($place->optional('settings'), false)];
        }
        self::checkParents($places, $nodes);
        foreach ($node->optional('displays')?->items(self::MOST) ?? [] as $display) {
            $display->object('id', 'name', 'place', 'settings');
            $display->optional('name')?->name();
            $place = $display->field('place');
            if (!isset($places[$place->id()])) {
                throw $place->refused(Reason::RefUnknown, sprintf('is "%s", which is no place of this estate.', $place->id()));
            }
            $displays[$ids->take($display->field('id'))] = [$place->id(), Settings::fromNode($display->optional('settings'), true)];
        }

        return new self($places, $displays);
    }

    /**
     * Of places that are known to be right.
     *
     * @param array<string, array{?string, Settings}> $places by id: the place above, and what it states
     * @param array<string, array{string, Settings}> $displays by id: the place, and what it states itself
     */
    public static function of(array $places, array $displays): self
    {
        return new self($places, $displays);
    }

    /** @throws DocumentRefused where there is no place or display of that id */
    public function at(string $id): Resolved
    {
        if (isset($this->displays[$id])) {
            [$place, $settings] = $this->displays[$id];

            return $this->ofPlace($place)->below($id, $settings);
        }

        return isset($this->places[$id]) ? $this->ofPlace($id) : throw self::unknown($id);
    }

    /**
     * The displays on which what a place or display states of a setting decides; of a list at least one id.
     *
     * @return list<string> in the order of the estate
     * @throws DocumentRefused where there is no place or display of that id, or no such setting
     */
    public function reach(string $id, string $setting): array
    {
        if (!isset($this->places[$id]) && !isset($this->displays[$id])) {
            throw self::unknown($id);
        }
        if (!Settings::knows($setting)) {
            throw DocumentRefused::because(Reason::ValueUnknown, sprintf(
                '"%s" is no setting; %s are, and %s.NAME.',
                $setting,
                implode(', ', array_diff(Settings::names(), [Settings::VARS])),
                Settings::VARS,
            ), '');
        }
        $reached = [];
        foreach (array_keys($this->displays) as $display) {
            if ($this->at((string) $display)->comesFrom($setting, $id)) {
                $reached[] = (string) $display;
            }
        }

        return $reached;
    }

    private function ofPlace(string $id): Resolved
    {
        if (!isset($this->resolved[$id])) {
            [$parent, $settings] = $this->places[$id];
            $this->resolved[$id] = ($parent === null ? Resolved::nothing() : $this->ofPlace($parent))->below($id, $settings);
        }

        return $this->resolved[$id];
    }

    /**
     * @param array<string, array{?string, Settings}> $places
     * @param list<Node> $nodes of them
     * @throws DocumentRefused
     */
    private static function checkParents(array $places, array $nodes): void
    {
        $number = 0;
        foreach ($places as [$parent]) {
            if ($parent !== null && !isset($places[$parent])) {
                throw $nodes[$number]->field('parent')->refused(Reason::RefUnknown, sprintf('is "%s", which is no place of this estate.', $parent));
            }
            $number++;
        }
        // Ways that lead to the top are gone once.
        [$number, $leadsUp] = [0, []];
        foreach (array_keys($places) as $id) {
            $way = [];
            for ($at = (string) $id; $at !== null && !isset($leadsUp[$at]) && !isset($way[$at]); $at = $places[$at][0]) {
                $way[$at] = true;
            }
            if ($at === (string) $id && isset($way[$at])) {
                throw $nodes[$number]->field('parent')->refused(Reason::RefCycle, sprintf('closes a cycle: %s.', implode(' > ', [...array_keys($way), $id])));
            }
            $leadsUp += $at === null || isset($leadsUp[$at]) ? $way : [];
            $number++;
        }
    }

    private static function unknown(string $id): DocumentRefused
    {
        return DocumentRefused::because(Reason::RefUnknown, sprintf('"%s" is no place and no display of this estate.', $id), '');
    }
}
