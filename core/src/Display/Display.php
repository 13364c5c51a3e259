<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\ActRefused;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\UniqueIds;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Units\UtcOffsets;

/** What viewers look at: one panel, or a wall of them, with its players, viewing range and time zone. */
final readonly class Display
{
    public const FORMAT = 'upper-pane/display@1';
    public const MOST_PANELS = 256;

    /**
     * @param bool $led whether it is made of LEDs, so that its pixels can be seen one by one
     * @param bool $butt whether the picture jumps across bezels instead of going on behind them
     * @param float $refreshHz pictures a second that its outputs send
     * @param int $bits for each colour of a pixel
     * @param list<Player> $players
     * @param list<LiveInput> $inputs
     * @param list<Sensor> $sensors
     * @param array<string, mixed> $given the document
     */
    private function __construct(
        public string $id,
        public string $name,
        public string $timezone,
        public Viewing $viewing,
        public bool $led,
        public bool $butt,
        public float $refreshHz,
        public int $bits,
        public Wall $wall,
        public array $players,
        public ?Processor $processor,
        public array $inputs,
        public array $sensors,
        private array $given,
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

    /** The same on another clock. */
    public function in(string $timezone): self
    {
        return $timezone === $this->timezone ? $this : self::fromArray(['timezone' => $timezone] + $this->given);
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
        $butt = $node->optional('bezels')?->oneOf('hide', 'butt') === 'butt';
        $timezone = UtcOffsets::name($node->field('timezone'));
        $gap = $node->optional('gap_mm')?->object('x', 'y');
        $panels = self::panels($node);
        if ($butt && !Wall::isGridOfLikePanels($panels, true)) {
            throw $node->field('bezels')->refused(Reason::ValueRange, 'is "butt", which only a grid of like panels can be; these hang freely or are of mixed sizes. "hide" is right.');
        }
        $players = self::each($node, 'players', 64, Player::fromNode(...));
        $names = array_map(static fn (Player $player): string => $player->id, $players);
        self::checkPlayersAreThere($node, $names);
        $led = $node->optional('technology')?->oneOf('lcd', 'led') === 'led';
        $between = ['x' => $gap?->field('x')->number(0.0, 1e5, 'mm') ?? 0.0, 'y' => $gap?->field('y')->number(0.0, 1e5, 'mm') ?? 0.0];
        $wall = Wall::of($panels, $between, $butt, null, $names);
        /** @var array<string, mixed> $given an object has names */
        $given = is_array($node->value) ? $node->value : [];
        $processor = self::processor($node->optional('processor'), $led, $panels, $wall->canvas, $names);

        return new self(
            $node->field('id')->id(),
            $node->field('name')->name(),
            $timezone,
            Viewing::fromNode($node->field('viewing')),
            $led,
            $butt,
            $node->optional('refresh_hz')?->positive('Hz') ?? 60.0,
            $node->optional('bits')?->int(1, 16) ?? 8,
            $processor === null ? $wall : Wall::of($panels, $between, $butt, $processor, $names),
            $players,
            $processor,
            self::each($node, 'inputs', 64, LiveInput::fromNode(...)),
            self::each($node, 'sensors', 64, Sensor::fromNode(...)),
            $given,
        );
    }

    /** @return array<string, mixed> the document as it was read */
    public function toArray(): array
    {
        return $this->given;
    }

    /**
     * With what a cure says done to it, or to one of its panels.
     *
     * @throws Refused where it cannot be done here
     */
    public function cured(Fix $cure): self
    {
        if ($cure->panel === null) {
            return self::fromArray(array_filter(array_replace($this->given, $cure->set), static fn (mixed $value): bool => $value !== null));
        }
        $panels = is_array($this->given['panels'] ?? null) ? $this->given['panels'] : [];
        foreach ($panels as $place => $panel) {
            if (is_array($panel) && ($panel['id'] ?? null) === $cure->panel) {
                $panels[$place] = array_replace($panel, $cure->set);

                return self::fromArray(array_replace($this->given, ['panels' => $panels]));
            }
        }
        throw ActRefused::because(Reason::RefUnknown, sprintf('"%s" is no panel of this display.', $cure->panel), '/panel');
    }

    /** The canvas of the display: its raster as it stands upright before the viewer, with what is hidden behind bezels, in px. */
    public function raster(): Size
    {
        return $this->wall->canvas;
    }

    /** The canvas as it hangs, bezels within included, in mm. */
    public function active(): Millimetres
    {
        return $this->wall->size;
    }

    /** Pixels of the raster to one mm, across, as it hangs. */
    public function pxPerMm(): float
    {
        return $this->wall->density;
    }

    public function isWall(): bool
    {
        return count($this->wall->panels) > 1;
    }

    public function sensor(string $id): ?Sensor
    {
        foreach ($this->sensors as $sensor) {
            if ($sensor->id === $id) {
                return $sensor;
            }
        }

        return null;
    }

    public function player(?string $id): ?Player
    {
        foreach ($this->players as $player) {
            if ($player->id === $id) {
                return $player;
            }
        }

        return null;
    }

    /**
     * The wall processor as it is surveyed. A sign of LED cabinets is one output of its own raster, unless its panels have outputs of their own.
     *
     * @param non-empty-list<Panel> $panels
     * @param list<string> $players
     * @throws DocumentRefused
     */
    private static function processor(?Node $field, bool $led, array $panels, Size $canvas, array $players): ?Processor
    {
        if ($field !== null) {
            return Processor::fromNode($field, $canvas);
        }
        $fed = array_filter($panels, static fn (Panel $panel): bool => $panel->output !== null) !== [];

        return $led && count($panels) > 1 && !$fed ? Processor::ofCanvas($players[0] ?? null, $canvas) : null;
    }

    /**
     * @return non-empty-list<Panel>
     * @throws DocumentRefused
     */
    private static function panels(Node $node): array
    {
        $panels = self::each($node, 'panels', self::MOST_PANELS, Panel::fromNode(...));
        if ($panels === []) {
            throw $node->field('panels')->refused(Reason::ValueRange, 'has no panel; a display has at least one.');
        }
        foreach ($node->field('panels')->items() as $index => $panel) {
            if (($panels[$index]->origin === null) !== ($panels[0]->origin === null)) {
                throw $panel->refused(Reason::ValueRange, sprintf(
                    'hangs %s, and the first panel %s; all of them have column and row, or all origin_mm.',
                    ...($panels[0]->origin === null ? ['freely', 'on a grid'] : ['on a grid', 'freely']),
                ));
            }
        }

        return $panels;
    }

    /**
     * @param list<string> $players
     * @throws DocumentRefused where a panel or the processor names a player that is not among those of the display
     */
    private static function checkPlayersAreThere(Node $node, array $players): void
    {
        if ($players === []) {
            return;
        }
        foreach ([...$node->field('panels')->items(), ...array_filter([$node->optional('processor')])] as $fed) {
            $named = $fed->optional('player');
            if ($named !== null && !in_array($named->value, $players, true)) {
                throw $named->refused(Reason::RefUnknown, sprintf('is "%s", no player of this display; %s.', $named->id(), implode(', ', $players)));
            }
        }
    }

    /**
     * @template T
     * @param callable(Node): T $read
     * @return list<T> each with an id of its own
     * @throws DocumentRefused
     */
    private static function each(Node $node, string $list, int $most, callable $read): array
    {
        $ids = new UniqueIds();
        $all = [];
        $field = $list === 'panels' ? $node->field($list) : $node->optional($list);
        foreach ($field?->items($most) ?? [] as $one) {
            $all[] = $read($one);
            $ids->take($one->field('id'));
        }

        return $all;
    }
}
