<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\UniqueIds;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Rota;
use UpperPane\Core\Units\WallClock;
use UpperPane\Core\Units\Whole;

/** A composition on a fixed canvas: its elements, the first lowest. */
final readonly class Layout
{
    public const FORMAT = 'upper-pane/layout@1';

    /** Loops that meet only after more than a year are said never to meet. */
    public const YEAR_MS = 31_536_000_000;

    private const UNBUILT = ['board', 'live', 'web'];

    /**
     * @param list<Element> $elements
     * @param array<string, Zone> $zones by id, lowest first; those that are to be seen
     * @param array<string, Zone> $all the hidden ones as well, which may lead others
     * @param array<string, Loop> $loops of the zones, by id
     * @param array<string, self> $variants the same content on other canvases, by id
     */
    private function __construct(
        public string $id,
        public string $name,
        public Size $canvas,
        public Colour $background,
        public array $elements,
        public array $zones,
        private array $all,
        public array $loops,
        public ?Recipe $recipe = null,
        public array $variants = [],
    ) {
    }

    /**
     * @param array<mixed> $document in the format `upper-pane/layout@1`
     * @throws DocumentRefused
     */
    public static function fromArray(array $document, ?Library $library = null): self
    {
        return self::fromNode(Node::root($document), $library ?? Library::empty());
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node, Library $library): self
    {
        $node->object('format', 'id', 'name', 'canvas', 'background', 'recipe', 'elements', 'variants', 'guides', 'safe');
        $node->format(self::FORMAT);
        $id = $node->field('id')->id();
        $recipe = $node->optional('recipe');
        $background = $node->optional('background')?->object('color')->field('color');
        $ids = new UniqueIds();
        $elements = [];
        $inside = $library->inside($id);
        $canvas = Size::fromNode($node->field('canvas'));
        foreach ($node->field('elements')->items() as $element) {
            $ids->take($element->field('id'));
            $elements[] = self::elementOf($element, $inside);
        }
        $zones = self::zones($elements);
        foreach ($node->field('elements')->items() as $element) {
            self::checkFollows($element->optional('follows'), $zones, $element->field('id')->id());
            $progress = $element->optional('progress')?->field('zone');
            if ($progress !== null && !isset($zones[$progress->id()])) {
                throw $progress->refused('ref.unknown', sprintf('is "%s", which is no zone of this layout.', $progress->id()));
            }
        }
        Guides::fromNode($node);

        return self::of(
            $id,
            $node->field('name')->text(),
            $canvas,
            $background === null ? Colour::black() : Colour::fromNode($background),
            $elements,
            $recipe === null ? null : Recipe::fromNode($recipe),
            Variants::fromNode($node, $library),
        );
    }

    /** Itself or its variant, whichever suits a raster best (Matching::bestOf). */
    public function for(Size $raster): self
    {
        $all = [$this, ...array_values($this->variants)];

        return $all[Matching::bestOf(array_map(static fn (self $layout): Size => $layout->canvas, $all), $raster)];
    }

    /** Without the elements that are left out for the time being; followers of a hidden leader go on following it. */
    public function visible(): self
    {
        $elements = array_values(array_filter($this->elements, static fn (Element $element): bool => !$element->isHidden()));

        return count($elements) === count($this->elements) ? $this : new self(
            $this->id,
            $this->name,
            $this->canvas,
            $this->background,
            $elements,
            self::zones($elements),
            $this->all,
            $this->loops,
            $this->recipe,
            $this->variants,
        );
    }

    /** One playlist over a whole raster, drawn by nobody. */
    public static function fullScreen(string $id, string $name, Size $raster, Playlist $playlist): self
    {
        return self::of($id, $name, $raster, Colour::black(), [Zone::whole('whole', Rect::whole($raster), $playlist)]);
    }

    /**
     * A playlist of its own over a whole canvas; without one, of 16:9, so that its items and their lengths are known.
     *
     * @param array<mixed> $document in the format `upper-pane/playlist@1`
     * @throws DocumentRefused
     */
    public static function ofPlaylist(array $document, Library $library, ?Size $canvas = null): self
    {
        $node = Node::root($document);
        $node->format(Playlist::FORMAT);
        $canvas ??= Size::px(1920, 1080);

        return self::of($node->field('id')->id(), $node->field('name')->text(), $canvas, Colour::black(), [Zone::ofPlaylist('whole', Rect::whole($canvas), $node, $library)]);
    }

    /** Whether the layout has a zone that plays something. */
    public function hasLoop(): bool
    {
        foreach ($this->loops as $loop) {
            if ($loop->items !== []) {
                return true;
            }
        }

        return false;
    }

    /**
     * The zones in which items come and go, each with its leader or its followers.
     *
     * @param string $timezone of the display
     * @param int $anchorMs UTC ms at which all loops begin
     * @return array<string, array{Rota, int}> by zone id: its rota, and which of the rota's zones it is
     */
    public function rotas(string $timezone, int $anchorMs): array
    {
        $rotas = [];
        $clock = null;
        foreach ($this->all as $id => $leader) {
            $family = [$leader, ...array_values(array_filter($this->all, static fn (Zone $zone): bool => $zone->follows === (string) $id))];
            $lists = array_map(static fn (Zone $zone): Playlist => $zone->playlist, $family);
            if ($leader->follows !== null || !Rota::isNeeded(...$lists)) {
                continue;
            }
            $rota = new Rota($lists, array_map($leader->lengthMs(...), $leader->playlist->enabled()), $clock ??= WallClock::in($timezone), $anchorMs);
            foreach ($family as $member => $zone) {
                $rotas[$zone->id()] = [$rota, $member];
            }
        }

        return $rotas;
    }

    /** Length of the layout's loop, ms: the leader's, or until all loops meet; null where it never comes round. */
    public function loopMs(): ?int
    {
        foreach ($this->zones as $zone) {
            if ($zone->follows !== null) {
                return $this->loops[$zone->follows]->periodMs;
            }
        }
        foreach ($this->loops as $loop) {
            if ($loop->periodMs === null) {
                return null;
            }
        }

        return $this->meetsEveryMs();
    }

    /** After how many ms all loops that come round begin together again; null beyond a year, or where none comes round. */
    public function meetsEveryMs(): ?int
    {
        $periods = [];
        foreach ($this->loops as $loop) {
            if ($loop->periodMs !== null && $loop->periodMs > 0) {
                $periods[] = $loop->periodMs;
            }
        }

        return $periods === [] ? null : Whole::leastCommonMultiple($periods, self::YEAR_MS);
    }

    /** @return array<string, float> which part of the canvas each zone takes up, by id; what lies outside counts as well */
    public function shares(): array
    {
        return array_map(fn (Zone $zone): float => $zone->rect()->area() / $this->canvas->area(), $this->zones);
    }

    public function element(string $id): ?Element
    {
        foreach ($this->elements as $element) {
            if ($element->id() === $id) {
                return $element;
            }
        }

        return null;
    }

    /**
     * @param list<Element> $elements
     * @param array<string, self> $variants
     */
    private static function of(string $id, string $name, Size $canvas, Colour $background, array $elements, ?Recipe $recipe = null, array $variants = []): self
    {
        $zones = self::zones($elements);
        $loops = [];
        foreach ($zones as $zoneId => $zone) {
            $leader = $zone->follows === null ? null : $zones[$zone->follows]->loop(null);
            $loops[$zoneId] = $zone->loop($leader);
        }

        return new self($id, $name, $canvas, $background, $elements, $zones, $zones, $loops, $recipe, $variants);
    }

    /**
     * @param list<Element> $elements
     * @return array<string, Zone>
     */
    private static function zones(array $elements): array
    {
        $zones = [];
        foreach ($elements as $element) {
            if ($element instanceof Zone) {
                $zones[$element->id()] = $element;
            }
        }

        return $zones;
    }

    private static function elementOf(Node $node, Library $library): Element
    {
        $kind = $node->field('kind');
        if (in_array($kind->value, self::UNBUILT, true)) {
            throw $kind->refused('kind.unbuilt', sprintf('is "%s", which is not drawn yet; zone, text, picture, shape, clock, code and ticker are.', $kind->text()));
        }

        return match ($kind->oneOf(Zone::KIND, Text::KIND, Picture::KIND, Shape::KIND, Clock::KIND, Code::KIND, Ticker::KIND)) {
            Zone::KIND => Zone::fromNode($node, $library),
            Text::KIND => Text::fromNode($node),
            Picture::KIND => Picture::fromNode($node),
            Clock::KIND => Clock::fromNode($node),
            Code::KIND => Code::fromNode($node),
            Ticker::KIND => Ticker::fromNode($node),
            default => Shape::fromNode($node),
        };
    }

    /** @param array<string, Zone> $zones */
    private static function checkFollows(?Node $follows, array $zones, string $own): void
    {
        if ($follows === null) {
            return;
        }
        $leader = $follows->id();
        if (!isset($zones[$leader]) || $leader === $own) {
            throw $follows->refused('ref.unknown', sprintf('is "%s", which is no other zone of this layout.', $leader));
        }
        if ($zones[$leader]->follows !== null) {
            throw $follows->refused('ref.cycle', sprintf('is "%s", which follows another zone itself; a leader follows none.', $leader));
        }
    }
}
