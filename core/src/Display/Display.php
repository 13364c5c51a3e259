<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\UniqueIds;
use UpperPane\Core\Geometry\Size;

/** What viewers look at: here one panel, turned or not, with its size in mm, viewing range and time zone. */
final readonly class Display
{
    public const FORMAT = 'upper-pane/display@1';

    private function __construct(
        public string $id,
        public string $name,
        public string $timezone,
        public Viewing $viewing,
        public Panel $panel,
    ) {
    }

    /**
     * @param array<mixed> $document in the format `upper-pane/display@1`
     * @throws DocumentRefused
     */
    public static function fromArray(array $document): self
    {
        return self::fromNode(Node::root($document));
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object(
            'format',
            'id',
            'name',
            'timezone',
            'viewing',
            'technology',
            'bezels',
            'refresh_hz',
            'bits',
            'gap_mm',
            'panels',
            'players',
            'inputs',
            'sensors',
            'processor',
        );
        $node->format(self::FORMAT);
        $node->optional('technology')?->oneOf('lcd', 'led');
        $node->optional('bezels')?->oneOf('hide', 'butt');
        $node->optional('refresh_hz')?->positive('Hz');
        $node->optional('bits')?->int(1, 16);
        foreach (['gap_mm', 'processor', 'inputs', 'sensors'] as $later) {
            if ($field = $node->optional($later)) {
                throw $field->refused('kind.unbuilt', 'is not read yet; leave the field out.');
            }
        }
        self::checkPlayers($node->optional('players'));
        $zone = $node->field('timezone');
        if (!in_array($zone->text(), \DateTimeZone::listIdentifiers(\DateTimeZone::ALL_WITH_BC), true)) {
            throw $zone->refused('value.unknown', sprintf('is "%s", no time zone of the tz database; Europe/Lisbon is one.', $zone->text()));
        }
        $panels = $node->field('panels');
        $ids = new UniqueIds();
        $read = [];
        foreach ($panels->items(1000) as $panel) {
            $read[] = Panel::fromNode($panel);
            $ids->take($panel->field('id'));
        }
        if ($read === []) {
            throw $panels->refused('value.range', 'has no panel; a display has at least one.');
        }
        if (count($read) > 1) {
            throw $panels->items()[1]->refused('kind.unbuilt', 'is a second panel; walls of several panels are not read yet.');
        }

        return new self(
            $node->field('id')->id(),
            $node->field('name')->text(),
            $zone->text(),
            Viewing::fromNode($node->field('viewing')),
            $read[0],
        );
    }

    /** The canvas of the display: its raster as it stands upright before the viewer, in px. */
    public function raster(): Size
    {
        return $this->panel->rotation->raster($this->panel->native);
    }

    /** The active area as it hangs, in mm. */
    public function active(): Millimetres
    {
        return match ($this->panel->rotation) {
            Rotation::None, Rotation::Half => $this->panel->active,
            Rotation::Quarter, Rotation::ThreeQuarters => $this->panel->active->swapped(),
        };
    }

    /** Pixels of the raster to one mm of the active area, across, as it hangs. */
    public function pxPerMm(): float
    {
        return $this->raster()->width / $this->active()->width;
    }

    private static function checkPlayers(?Node $players): void
    {
        $ids = new UniqueIds();
        foreach ($players?->items(64) ?? [] as $player) {
            $player->object('id', 'outputs', 'films_at_once', 'largest_film', 'codecs', 'kinds');
            $ids->take($player->field('id'));
            foreach ($player->optional('outputs')?->items(64) ?? [] as $output) {
                $output->object('number', 'link');
                $output->field('number')->int(1, 64);
                $output->field('link')->text();
            }
            $player->optional('films_at_once')?->int(0, 64);
            if ($film = $player->optional('largest_film')) {
                $film->object('width', 'height', 'fps');
                $film->field('width')->int(1, Size::LONGEST, 'px');
                $film->field('height')->int(1, Size::LONGEST, 'px');
                $film->field('fps')->positive();
            }
            foreach (['codecs', 'kinds'] as $list) {
                foreach ($player->optional($list)?->items(64) ?? [] as $name) {
                    $name->text();
                }
            }
        }
    }
}
