<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Ticker;

use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Composable;
use UpperPane\Core\Layout\Kind\Describes;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\ElementHead;
use UpperPane\Core\Layout\Kind\Head;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Told\InLanguages;
use UpperPane\Core\Layout\Told\InTurn;
use UpperPane\Core\Layout\Told\Languages;
use UpperPane\Core\Layout\Told\Reading;
use UpperPane\Core\Layout\Told\RowTeller;
use UpperPane\Core\Layout\Told\SaysText;
use UpperPane\Core\Layout\Told\TellsMessage;
use UpperPane\Core\Layout\Type\ReadingTime;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Text\SetText;

/** Words that run through their box on one line, over and over. */
final readonly class Ticker implements WrittenElement, Describes, Composable, SaysText
{
    use ElementHead;
    use TellsMessage;

    public const KIND = 'ticker';

    /** A second of a display refreshes so often unless it was surveyed otherwise. */
    public const REFRESH_HZ = 60.0;

    /** Where there is nothing to be told, it is looked again so often. */
    private const SILENT_MS = 1000;

    private const LONGEST = 20_000;

    /** Stands between rows. */
    private const SEPARATOR = ' · ';

    /** @param float $speedPxS canvas px a second */
    private function __construct(
        private Head $head,
        public string $text,
        public TextStyle $style,
        public float $speedPxS,
        public bool $toTheRight,
        private string $separator = self::SEPARATOR,
        private ?Message $message = null,
        private ?Rows $rows = null,
        private ?InTurn $inTurn = null,
        private ?Languages $languages = null,
        private ?InLanguages $inLanguages = null,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'text' => Field::text(0, self::LONGEST, Role::Words)->required(),
            'style' => TextStyle::field()->required(),
            ...self::messageFields(self::LONGEST),
            'separator' => Field::text(0, 100)->saying('between the rows that are told'),
            'speed_px_s' => Field::number(1, 100_000, Role::Speed),
            'way' => Field::oneOf('left', 'right'),
        ]);
    }

    public static function begun(Rect $rect, Size $canvas): array
    {
        return ['text' => 'Running text', 'speed_px_s' => 120, 'style' => TextStyle::begun($rect, $canvas, 0.5) + ['valign' => 'middle']];
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): static
    {
        $head = Head::fromNode($node, self::fields());
        $text = $node->field('text')->text(0, self::LONGEST);
        [$message, $rows] = self::messageOf($node, $text);

        return new self(
            $head,
            self::onOneLine($text),
            TextStyle::fromNode($node->field('style')),
            $node->optional('speed_px_s')?->number(1.0, 100_000.0, 'px/s') ?? 120.0,
            ($node->optional('way')?->oneOf('left', 'right') ?? 'left') === 'right',
            $node->optional('separator')?->text(0, 100) ?? self::SEPARATOR,
            $message,
            $rows,
            languages: Languages::of($node, $message !== null, static fn (Node $one): string => $one->text(0, self::LONGEST)),
        );
    }

    private static function onOneLine(string $text): string
    {
        return trim((string) preg_replace('/\s+/u', ' ', $text));
    }

    public function composed(Composer $composer, string $path): Element
    {
        return $this->toldInLanguages($composer, $path);
    }

    public function says(): string
    {
        return $this->text;
    }

    public function told(RowTeller $row): static
    {
        return $this->message === null ? $this : $this->worded($row->tell($this->message), $this->message);
    }

    /** All rows, one after the other. */
    private function over(Reading $reading, int $ms): static
    {
        return $this->worded(implode($this->separator, array_map(fn (array $row): string => $this->told($reading->teller($row))->text, $reading->rowsAt($ms))), $this->message);
    }

    private function tellsAll(): bool
    {
        return true;
    }

    private function lastsMs(?FaceMetrics $faces): ?int
    {
        $length = $faces === null ? null : $this->lengthPx($faces);

        return match (true) {
            $length === null => null,
            $this->text === '' => self::SILENT_MS,
            default => $this->passMs($length),
        };
    }

    private function worded(string $text, ?Message $message): static
    {
        return new self($this->head, self::onOneLine($text), $this->style, $this->speedPxS, $this->toTheRight, $this->separator, $message, $this->rows, $this->inTurn);
    }

    private function going(?InTurn $inTurn, ?InLanguages $inLanguages): static
    {
        return new self(
            $this->head,
            $this->text,
            $this->style,
            $this->speedPxS,
            $this->toTheRight,
            $this->separator,
            $this->message,
            $this->rows,
            $inTurn,
            $this->languages,
            $inLanguages,
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

    public function title(): string
    {
        return $this->id();
    }

    public function described(FaceMetrics $faces, ?float $mmPerPx): ?string
    {
        $length = $this->lengthPx($faces);
        $words = $length === null ? null : $this->wordsAMinute($length);

        return $length === null || $words === null ? null : sprintf(
            'one pass lasts %s s, %d words a minute come by',
            round($this->passMs($length) / 1000, 1),
            (int) round($words),
        );
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
        return ReadingTime::wordsOf($this->text);
    }

    public function covers(): bool
    {
        return false;
    }
}
