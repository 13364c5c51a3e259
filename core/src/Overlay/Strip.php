<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Kind\Ticker\Ticker;
use UpperPane\Core\Layout\Told\Languages;
use UpperPane\Core\Layout\Type\TextStyle;

/** Words that run along an edge; above what plays, or beside it. */
final readonly class Strip implements Kind
{
    private const EDGES = ['top', 'bottom', 'left', 'right'];

    /** Which way it runs along an edge; the first unless it says otherwise. */
    private const WAYS = ['top' => ['to-left', 'to-right'], 'bottom' => ['to-left', 'to-right'], 'left' => ['up', 'down'], 'right' => ['up', 'down']];

    /** @param float $thickness as a share of the height of the canvas, or of its width */
    private function __construct(
        private string $edge,
        private float $thickness,
        public Words $words,
        public ?string $ground,
        public float $speedPxS,
        private string $way,
        public bool $squeezes,
    ) {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'edge' => Field::oneOf(...self::EDGES)->required(),
            'thickness' => Field::number(0, 1)->required()->saying('as a share of the height of the canvas for top and bottom, else of its width'),
            'text' => Words::field()->required(),
            'turn_ms' => Languages::fields(Words::LONGEST)['turn_ms'],
            'message' => Field::bool()->saying('whether the text is an ICU MessageFormat pattern over the fields of a row'),
            'rows' => Field::object(Rows::fields())->saying('told one after the other'),
            'separator' => Field::text(0, 100)->saying('between the rows that are told'),
            'style' => TextStyle::field()->required(),
            'ground' => Field::colour()->orNull(),
            'speed_px_s' => Field::number(1, 100_000, Role::Speed)->required()->saying('taken to the nearest multiple of half a px a refresh'),
            'direction' => Field::oneOf('to-left', 'to-right', 'up', 'down'),
            'room' => Field::oneOf('cover', 'squeeze'),
        ]);
    }

    public static function fromNode(Node $node): self
    {
        $edge = $node->field('edge')->oneOf(...self::EDGES);
        [$thickness, $ground] = [$node->field('thickness'), $node->given('ground')];
        $ground === null ?: Colour::fromNode($ground);
        $strip = new self(
            $edge,
            $thickness->number(0.0, 1.0) > 0.0 ? $thickness->number(0.0, 1.0) : throw $thickness->refused(Reason::ValueRange, 'is 0; then nobody sees it.'),
            Words::fromNode($node),
            $ground?->text(1, 81),
            $node->field('speed_px_s')->number(1.0, 100_000.0, 'px/s'),
            $node->optional('direction')?->oneOf(...self::WAYS[$edge]) ?? self::WAYS[$edge][0],
            ($node->optional('room')?->oneOf('cover', 'squeeze') ?? 'cover') === 'squeeze',
        );
        // What is wrong with its words is told where it stands.
        Ticker::fromNode(Node::at($strip->element('ticker', Rect::at(0, 0, 1, 1)), $node->path));

        return $strip;
    }

    public static function mayFollow(): bool
    {
        return false;
    }

    public function elsewhere(): array
    {
        // A line that runs along goes on along: at the sides it would have to be turned.
        $edges = Elsewhere::but($this->edge, 'edge', $this->isUpright() ? ['left', 'right'] : ['top', 'bottom']);

        return $this->squeezes ? $edges : [new Elsewhere('beside what plays, not above it', ['room' => 'squeeze']), ...$edges];
    }

    /** Whether it runs from top to bottom or back. */
    public function isUpright(): bool
    {
        return in_array($this->edge, ['left', 'right'], true);
    }

    public function pace(?float $refreshHz): Pace
    {
        return Pace::of($this->speedPxS, $refreshHz, in_array($this->way, ['to-right', 'down'], true));
    }

    /**
     * The element that says its words, laid on its back where it is upright.
     *
     * @param ?float $speedPxS at which it runs; null for as it is written
     * @return array<string, mixed>
     */
    public function element(string $id, Rect $rect, ?float $speedPxS = null): array
    {
        return Ticker::written($id, $rect, ['speed_px_s' => $speedPxS ?? $this->speedPxS, 'way' => in_array($this->way, ['to-right', 'down'], true) ? 'right' : 'left'] + $this->words->fields);
    }

    /** How thick it is as a share of the side that its thickness counts of. */
    public function share(Room $room, int $px): float
    {
        return $px / ($this->isUpright() ? $room->canvas->width : $room->canvas->height);
    }

    /** Along its whole edge of what is left. */
    public function rect(Room $room): Rect
    {
        return $this->thick($room, max(1, Room::px($this->thickness * ($this->isUpright() ? $room->canvas->width : $room->canvas->height))));
    }

    /** Where it would lie if it were so many px thick. */
    public function thick(Room $room, int $thick): Rect
    {
        $rest = $room->rest;

        return match ($this->edge) {
            'top' => Rect::at($rest->x, $rest->y, $rest->width, $thick),
            'bottom' => Rect::at($rest->x, $rest->bottom() - $thick, $rest->width, $thick),
            'left' => Rect::at($rest->x, $rest->y, $thick, $rest->height),
            default => Rect::at($rest->right() - $thick, $rest->y, $thick, $rest->height),
        };
    }

    /**
     * What it leaves where it squeezes.
     *
     * @throws DocumentRefused where that is under 1 px
     */
    public function squeezed(Room $room, string $id): Room
    {
        $strip = $this->rect($room);
        $rest = $room->rest;
        [$width, $height] = $this->isUpright() ? [$rest->width - $strip->width, $rest->height] : [$rest->width, $rest->height - $strip->height];
        if ($width < 1 || $height < 1) {
            throw DocumentRefused::because(Reason::ValueRange, sprintf('The strip "%s" leaves nothing of %d x %d px for what plays.', $id, $rest->width, $rest->height), '/thickness');
        }

        return $room->leaving(Rect::at($this->edge === 'left' ? $strip->right() : $rest->x, $this->edge === 'top' ? $strip->bottom() : $rest->y, $width, $height));
    }
}
