<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Text\SetText;

/** Words that run through their box on one line, over and over. */
final readonly class Ticker implements Worded
{
    use ElementHead;

    public const KIND = 'ticker';

    /** A second of a display refreshes so often unless it was surveyed otherwise. */
    public const REFRESH_HZ = 60.0;

    /** @param float $speedPxS canvas px a second */
    private function __construct(private Head $head, public string $text, public TextStyle $style, public float $speedPxS, public bool $toTheRight)
    {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $head = Head::fromNode($node, 'text', 'style', 'speed_px_s', 'way');

        return new self(
            $head,
            trim((string) preg_replace('/\s+/u', ' ', $node->field('text')->text(0, 20_000))),
            TextStyle::fromNode($node->field('style')),
            $node->optional('speed_px_s')?->number(1.0, 100_000.0, 'px/s') ?? 120.0,
            ($node->optional('way')?->oneOf('left', 'right') ?? 'left') === 'right',
        );
    }

    /** How wide its line is, canvas px; null where the face cannot be measured. */
    public function lengthPx(FaceMetrics $faces): ?float
    {
        $style = $this->style;
        if (!$faces->knows($style->family)) {
            return null;
        }

        return SetText::of($this->text, $faces, $style->family, $style->weight, $style->sizePx, $style->lineHeight, INF)->widthPx + 2 * ($style->plate->px ?? 0.0);
    }

    /** How long it takes from the first letter's coming in to the last one's going out: (box + text) / speed. */
    public function passMs(float $lengthPx): int
    {
        return max(1, (int) round(1000 * ($this->rect()->width + $lengthPx) / $this->speedPxS));
    }

    /** Where the line begins, px from the left of its box, so many ms into a pass. */
    public function at(int $ms, float $lengthPx): float
    {
        $way = $this->speedPxS * $ms / 1000;

        return $this->toTheRight ? $way - $lengthPx : $this->rect()->width - $way;
    }

    /** Words that come by in a minute while it runs; null where there are none. */
    public function wordsAMinute(float $lengthPx): ?float
    {
        $words = $this->wordCount();

        return $words === 0 || $lengthPx <= 0.0 ? null : 60 * $words * $this->speedPxS / $lengthPx;
    }

    /** As many of its words as fill its box: what is seen of it at a time. */
    public function words(FaceMetrics $faces): array
    {
        $seen = $this->text;
        $length = $this->lengthPx($faces);
        if ($length !== null && $length > $this->rect()->width) {
            $seen = mb_substr($seen, 0, max(1, (int) floor(mb_strlen($seen) * $this->rect()->width / $length * 0.9)));
        }

        return [Text::within($this, $this->rect(), trim($seen), $this->style)];
    }

    public function styles(): array
    {
        return [$this->style];
    }

    public function wordCount(): int
    {
        return Reading::wordsOf($this->text);
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
