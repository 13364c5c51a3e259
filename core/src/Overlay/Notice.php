<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Kind\Ticker\Ticker;
use UpperPane\Core\Layout\Told\Languages;
use UpperPane\Core\Layout\Type\TextStyle;

/** Words that stand at one of nine places, or run along it. */
final readonly class Notice implements Kind
{
    private const HIGH = ['top', 'middle', 'bottom'];
    private const STANDS = 'stands';

    /** How far one that stands is away from the edges, as a share of the shorter side. */
    private const MARGIN = 0.05;

    /**
     * @param 'top'|'middle'|'bottom' $high
     * @param 'left'|'middle'|'right' $along
     * @param float $width as a share of that of the canvas
     * @param float $padding as a share of the shorter side
     */
    private function __construct(
        public Words $words,
        private string $high,
        private string $along,
        private float $width,
        public ?string $plate,
        private float $padding,
        private string $moves,
        public float $speedPxS,
    ) {
    }

    public static function fields(): Fields
    {
        return Fields::of([
            'text' => Words::field()->required(),
            'turn_ms' => Languages::fields(Words::LONGEST)['turn_ms'],
            'message' => Field::bool()->saying('whether the text is an ICU MessageFormat pattern over the fields of a row'),
            'rows' => Field::object(Rows::fields())->saying('of which the first is told'),
            'style' => TextStyle::field()->required(),
            'place' => Field::oneOf(...self::places())->required(),
            'width' => Field::number(0, 1)->required()->saying('as a share of the width of the canvas'),
            'plate' => Field::colour()->orNull(),
            'padding' => Field::number(0, 1)->saying('as a share of the shorter side of the canvas'),
            'moves' => Field::oneOf(self::STANDS, 'to-left', 'to-right'),
            'speed_px_s' => Field::number(1, 100_000, Role::Speed)->saying('of one that moves, taken to the nearest multiple of half a px a refresh'),
        ]);
    }

    public static function fromNode(Node $node): self
    {
        $place = explode('-', $node->field('place')->oneOf(...self::places()));
        $width = $node->field('width');
        $moves = $node->optional('moves')?->oneOf(self::STANDS, 'to-left', 'to-right') ?? self::STANDS;
        $plate = $node->given('plate');
        $plate === null ?: Colour::fromNode($plate);
        $notice = new self(
            Words::fromNode($node),
            match ($place[0]) {
                'top' => 'top',
                'bottom' => 'bottom',
                default => 'middle',
            },
            match ($place[1] ?? '') {
                'left' => 'left',
                'right' => 'right',
                default => 'middle',
            },
            $width->number(0.0, 1.0) > 0.0 ? $width->number(0.0, 1.0) : throw $width->refused(Reason::ValueRange, 'is 0; then nobody sees it.'),
            $plate?->text(1, 81),
            $node->optional('padding')?->number(0.0, 1.0) ?? 0.0,
            $moves,
            ($moves === self::STANDS ? $node->optional('speed_px_s') : $node->field('speed_px_s'))?->number(1.0, 100_000.0, 'px/s') ?? 1.0,
        );
        // What is wrong with its words is told where it stands.
        Text::fromNode(Node::at($notice->element('notice', Rect::at(0, 0, 1, 1)), $node->path));

        return $notice;
    }

    public static function mayFollow(): bool
    {
        return false;
    }

    public function elsewhere(): array
    {
        return Elsewhere::but($this->along === 'middle' ? $this->high : "$this->high-$this->along", 'place', self::places());
    }

    public function isMoving(): bool
    {
        return $this->moves !== self::STANDS;
    }

    public function pace(?float $refreshHz): Pace
    {
        return Pace::of($this->speedPxS, $refreshHz, $this->moves === 'to-right');
    }

    /**
     * The element that says the words of one that moves.
     *
     * @return array<string, mixed>
     */
    public function moving(string $id, Rect $rect, float $speedPxS): array
    {
        return Ticker::written($id, $rect, ['speed_px_s' => $speedPxS] + $this->words->fields);
    }

    /**
     * The element that says its words.
     *
     * @return array<string, mixed>
     */
    public function element(string $id, Rect $rect): array
    {
        return Text::written($id, $rect, $this->words->fields);
    }

    /** How wide it is, px; one that moves goes from edge to edge. */
    public function widthPx(Room $room): int
    {
        return $this->isMoving() ? $room->rest->width : max(1, Room::px($this->width * $room->canvas->width));
    }

    /** How wide its lines may be, px. */
    public function linePx(Room $room): int
    {
        return max(1, $this->widthPx($room) - 2 * $this->paddingPx($room));
    }

    public function paddingPx(Room $room): int
    {
        return Room::px($this->padding * $room->shorter());
    }

    /** @param float $linesPx how high its lines are, px */
    public function rect(Room $room, float $linesPx): Rect
    {
        return $room->at(
            $this->high,
            $this->isMoving() ? 'left' : $this->along,
            $this->widthPx($room),
            max(1, Room::px($linesPx + 2 * $this->padding * $room->shorter())),
            $this->isMoving() ? 0 : Room::px(self::MARGIN * $room->shorter()),
        );
    }

    /** @return list<string> */
    private static function places(): array
    {
        return array_merge(...array_map(static fn (string $high): array => [$high, "$high-left", "$high-right"], self::HIGH));
    }
}
