<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Text\SetText;

/** Words on the canvas. */
final readonly class Text implements Element
{
    use ElementHead;

    public const KIND = 'text';

    private function __construct(private string $id, private Rect $rect, public string $text, public TextStyle $style)
    {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        self::head($node, 'text', 'style');

        return new self(
            $node->field('id')->id(),
            Rect::fromNode($node->field('rect')),
            $node->field('text')->text(0, 10_000),
            TextStyle::fromNode($node->field('style')),
        );
    }

    /**
     * Its lines as they stand in its box, or with a type of another size.
     *
     * @param ?float $sizePx of the type; null for its own
     * @param ?int $widthPx of the box; null for its own
     */
    public function set(FaceMetrics $faces, ?float $sizePx = null, ?int $widthPx = null): SetText
    {
        $style = $this->style;
        $plate = 2 * ($style->plate->px ?? 0.0);

        return SetText::of($this->text, $faces, $style->family, $style->weight, $sizePx ?? $style->sizePx, $style->lineHeight, max(1.0, ($widthPx ?? $this->rect->width) - $plate));
    }

    /** Whether lines that were set for it are larger than its box, plate included. */
    public function overflows(SetText $set): bool
    {
        $plate = 2 * ($this->style->plate->px ?? 0.0);

        return $set->overflows($this->rect->width - $plate, $this->rect->height - $plate);
    }

    /**
     * The largest type, in whole px, with which it fits its box; null where not even 1 px does.
     *
     * @param int $most px
     */
    public function largestThatFits(FaceMetrics $faces, int $most): ?int
    {
        [$least, $found] = [1, null];
        while ($least <= $most) {
            $middle = intdiv($least + $most, 2);
            if ($this->overflows($this->set($faces, (float) $middle))) {
                $most = $middle - 1;
            } else {
                [$found, $least] = [$middle, $middle + 1];
            }
        }

        return $found;
    }

    /**
     * Where each line of words stands, in canvas px.
     *
     * @return list<Box> a line is as high as the line height says; empty lines are left out
     */
    public function lineBoxes(SetText $set): array
    {
        $style = $this->style;
        $plate = $style->plate->px ?? 0.0;
        $line = $style->lineHeight * $style->sizePx;
        $room = $this->rect->height - 2 * $plate - $set->heightPx;
        $top = $this->rect->y + $plate + match ($style->valign) {
            'middle' => $room / 2,
            'bottom' => $room,
            default => 0.0,
        };
        $boxes = [];
        foreach ($set->lines as $index => ['width_px' => $width]) {
            $free = $this->rect->width - 2 * $plate - $width;
            $left = match ($style->align) {
                'center' => $free / 2,
                'end' => $this->isRightToLeft() ? 0.0 : $free,
                default => $this->isRightToLeft() ? $free : 0.0,
            };
            if ($width > 0.0) {
                $boxes[] = new Box($this->rect->x + $plate + $left, $top + $index * $line, $width, $line);
            }
        }

        return $boxes;
    }

    /** Whether its first strong letter belongs to a right-to-left script (UAX 9, P2): then it begins at the right. */
    private function isRightToLeft(): bool
    {
        foreach (mb_str_split($this->text) as $letter) {
            $direction = \IntlChar::charDirection($letter);
            if ($direction === \IntlChar::CHAR_DIRECTION_LEFT_TO_RIGHT) {
                return false;
            }
            if (in_array($direction, [\IntlChar::CHAR_DIRECTION_RIGHT_TO_LEFT, \IntlChar::CHAR_DIRECTION_RIGHT_TO_LEFT_ARABIC], true)) {
                return true;
            }
        }

        return false;
    }

    public function kind(): string
    {
        return self::KIND;
    }

    public function covers(): bool
    {
        return false;
    }
}
