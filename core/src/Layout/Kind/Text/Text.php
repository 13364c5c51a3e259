<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Text;

use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Compares;
use UpperPane\Core\Layout\Kind\Composable;
use UpperPane\Core\Layout\Kind\Describes;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\ElementHead;
use UpperPane\Core\Layout\Kind\HasRoom;
use UpperPane\Core\Layout\Kind\Head;
use UpperPane\Core\Layout\Kind\SeamSensitive;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Told\InLanguages;
use UpperPane\Core\Layout\Told\InTurn;
use UpperPane\Core\Layout\Told\Languages;
use UpperPane\Core\Layout\Told\RowTeller;
use UpperPane\Core\Layout\Told\SaysText;
use UpperPane\Core\Layout\Told\TellsMessage;
use UpperPane\Core\Layout\Type\ReadingTime;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Text\Run;
use UpperPane\Core\Text\SetText;
use UpperPane\Core\Units\Integers;

/** Words on the canvas; parts of them may be set otherwise. What has no room in the box is told, or set smaller, or cut with an ellipsis. */
final readonly class Text implements WrittenElement, SeamSensitive, Describes, Compares, Composable, SaysText, HasRoom
{
    use ElementHead;
    use TellsMessage;

    public const KIND = 'text';
    private const LONGEST = 20_000;
    private const ELLIPSIS = '…';

    /**
     * @param list<StyledSpan> $marks
     * @param 'report'|'shrink'|'clip' $overflow
     * @param float $leastPx type that it may be shrunk to
     * @param bool $ownBox whether its rectangle is that of its element, and not a part of it
     * @param ?Message $message that its words are told by, over rows
     * @param ?string $part of the element that it is one of, where that has several
     */
    private function __construct(
        private Head $head,
        public string $text,
        public TextStyle $style,
        public array $marks = [],
        public string $overflow = 'report',
        public float $leastPx = 1.0,
        public bool $ownBox = true,
        private ?Message $message = null,
        private ?Rows $rows = null,
        private ?InTurn $inTurn = null,
        public ?string $part = null,
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
            'marks' => Field::list(Field::object(StyledSpan::fields()), 500)
                ->saying('parts set otherwise, in order, none over another; characters [from, to) as Unicode code points, a line end counts as one'),
            'overflow' => Field::oneOf('report', 'shrink', 'clip')->saying('what has no room is told (the default), set smaller, or cut with an ellipsis'),
            'least_px' => Field::number(1, 100_000, Role::TypePx)->saying('type that it may be shrunk to'),
        ]);
    }

    public static function begun(Rect $rect, Size $canvas): array
    {
        return ['text' => 'Text', 'style' => TextStyle::begun($rect, $canvas, 0.6)];
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): static
    {
        $head = Head::fromNode($node, self::fields());
        $read = static fn (Node $one): string => self::oneLineEnd($one->text(0, self::LONGEST));
        $text = $read($node->field('text'));
        $style = TextStyle::fromNode($node->field('style'));
        [$message, $rows] = self::messageOf($node, $text);
        $least = min($style->sizePx, $node->optional('least_px')?->number(1, 100_000, 'px') ?? 1.0);

        return new self(
            $head,
            $text,
            $style,
            StyledSpan::allFromNode($node->optional('marks'), mb_strlen($text)),
            match ($node->optional('overflow')?->oneOf('report', 'shrink', 'clip') ?? 'report') {
                'shrink' => 'shrink',
                'clip' => 'clip',
                default => 'report',
            },
            $least,
            true,
            $message,
            $rows,
            languages: Languages::of($node, $message !== null, $read),
        );
    }

    private static function oneLineEnd(string $text): string
    {
        return str_contains($text, "\r") ? strtr($text, ["\r\n" => "\n", "\r" => "\n"]) : $text;
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
        return $this->message === null ? $this : $this->worded(self::oneLineEnd($row->tell($this->message)), $this->message);
    }

    private function worded(string $text, ?Message $message): static
    {
        return new self(
            $this->head,
            $text,
            $this->style,
            // Parts are those of what is written, not of what is told.
            $text === $this->text ? $this->marks : [],
            $this->overflow,
            $this->leastPx,
            $this->ownBox,
            $message,
            $this->rows,
            $this->inTurn,
            $this->part,
        );
    }

    private function going(?InTurn $inTurn, ?InLanguages $inLanguages): static
    {
        return new self(
            $this->head,
            $this->text,
            $this->style,
            $this->marks,
            $this->overflow,
            $this->leastPx,
            $this->ownBox,
            $this->message,
            $this->rows,
            $inTurn,
            $this->part,
            $this->languages,
            $inLanguages,
        );
    }

    /** Words that are a part of another element. */
    public static function within(Element $element, Rect $rect, string $text, TextStyle $style): self
    {
        return new self(Head::of($element->id(), $rect), $text, $style, ownBox: $rect->equals($element->rect()));
    }

    /** The same as a part of another element. */
    public function ownedBy(Element $element, string $part): self
    {
        return new self(Head::of($element->id(), $this->rect()), $this->text, $this->style, $this->marks, $this->overflow, $this->leastPx, false, part: $part);
    }

    public function words(FaceMetrics $faces): array
    {
        return [$this->resolved($faces)];
    }

    public function styles(): array
    {
        return [$this->style->sized($this->smallestPx())];
    }

    public function title(): string
    {
        return $this->text;
    }

    public function described(FaceMetrics $faces, ?float $mmPerPx): ?string
    {
        if (trim($this->text) === '' || !$faces->knows($this->style->family)) {
            return null;
        }
        $drawn = $this->resolved($faces);
        $set = $drawn->set($faces);
        $plate = 2 * ($this->style->plate->px ?? 0.0);

        return sprintf(
            '%s, %d × %d px%s%s',
            count($set->lines) === 1 ? 'one line' : count($set->lines) . ' lines',
            (int) ceil($set->widthPx + $plate),
            (int) ceil($set->heightPx + $plate),
            $drawn->style->sizePx === $this->style->sizePx ? '' : sprintf(', set in %s px', Box::figure($drawn->style->sizePx)),
            $drawn->text === $this->text ? '' : sprintf(', cut after %d characters', mb_strlen($drawn->text) - 1),
        ) . sprintf('; read in %d s', intdiv(ReadingTime::neededMs($this->wordCount()), 1000));
    }

    public function changesFrom(Element $before): array
    {
        return match (true) {
            !$before instanceof self => [],
            $before->pattern() !== $this->pattern() => [sprintf(
                '"%s" says "%s", was "%s".',
                $this->id(),
                mb_strimwidth($this->pattern(), 0, 60, '...'),
                mb_strimwidth($before->pattern(), 0, 60, '...'),
            )],
            $before->rows?->key() !== $this->rows?->key() => [sprintf('"%s" tells other rows.', $this->id())],
            $before->style->toArray() !== $this->style->toArray() || $before->marks != $this->marks => [sprintf('"%s" is set in another style.', $this->id())],
            $before->overflow !== $this->overflow || $before->leastPx !== $this->leastPx => [sprintf('"%s" is fitted otherwise.', $this->id())],
            default => [],
        };
    }

    private function pattern(): string
    {
        return $this->message->pattern ?? $this->text;
    }

    /** Its smallest type, px: its own where not all of it is marked. */
    public function smallestPx(): float
    {
        $sizes = array_map(fn (StyledSpan $mark): float => $mark->size * $this->style->sizePx, $this->marks);
        $marked = array_sum(array_map(static fn (StyledSpan $mark): int => $mark->to - $mark->from, $this->marks));

        return $sizes === [] || $marked < mb_strlen($this->text) ? min([...$sizes, $this->style->sizePx]) : min($sizes);
    }

    public function wordCount(): int
    {
        return ReadingTime::wordsOf($this->text);
    }

    /** As it is drawn: set smaller or cut where it has no room and says so. */
    public function resolved(FaceMetrics $faces): self
    {
        if ($this->overflow === 'report' || !$faces->knows($this->style->family) || !$this->overflows($this->set($faces))) {
            return $this;
        }

        return $this->overflow === 'shrink'
            ? $this->sized((float) max(ceil($this->leastPx), $this->largestThatFits($faces, (int) ceil($this->style->sizePx) - 1) ?? 1))
            : $this->cut($faces);
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

        return SetText::of(
            $this->text,
            $faces,
            $style->family,
            $style->weight,
            $sizePx ?? $style->sizePx,
            $style->lineHeight,
            max(1.0, ($widthPx ?? $this->rect()->width) - $plate),
            $this->runs($sizePx ?? $style->sizePx),
        );
    }

    /** Its type in another size, and that of its parts with it. */
    private function sized(float $sizePx): self
    {
        return new self($this->head, $this->text, $this->style->sized($sizePx), $this->marks, $this->overflow, $this->leastPx, $this->ownBox, $this->message, part: $this->part);
    }

    /** As many letters as its box has room for, and an ellipsis. */
    private function cut(FaceMetrics $faces): self
    {
        // Nothing behind the first line that has no room is left.
        [$room, $text] = [$this->rect()->height - 2 * ($this->style->plate->px ?? 0.0), $this->text];
        foreach ($this->set($faces)->lines as $line) {
            $room -= $line['height_px'];
            if ($room < 0.0 && $line['from'] > 0) {
                $text = substr($this->text, 0, $line['from'] + strlen($line['text']));
                break;
            }
        }
        $letters = [];
        preg_match_all('/\X/u', $text, $letters);
        $cut = function (int $count) use ($letters): self {
            $left = rtrim(implode('', array_slice($letters[0], 0, $count)));
            $marks = array_values(array_filter(array_map(static fn (StyledSpan $mark): ?StyledSpan => $mark->cutAt(mb_strlen($left)), $this->marks)));

            return new self($this->head, $left . self::ELLIPSIS, $this->style, $marks, $this->overflow, $this->leastPx, $this->ownBox, $this->message, part: $this->part);
        };

        return $cut(Integers::largest(0, count($letters[0]), fn (int $count): bool => !$this->overflows($cut($count)->set($faces))));
    }

    /** @return list<Run> parts in another weight or size */
    private function runs(float $sizePx): array
    {
        $runs = [];
        [$characters, $bytes] = [0, 0];
        foreach ($this->marks as $mark) {
            $from = $bytes + strlen(mb_substr($this->text, $characters, $mark->from - $characters));
            $to = $from + strlen(mb_substr($this->text, $mark->from, $mark->to - $mark->from));
            [$characters, $bytes] = [$mark->to, $to];
            if ($mark->weight !== null || $mark->size !== 1.0) {
                $runs[] = new Run($from, $to, $mark->weight ?? $this->style->weight, $mark->size * $sizePx);
            }
        }

        return $runs;
    }

    /** Whether lines that were set for it are larger than its box, plate included. */
    public function overflows(SetText $set): bool
    {
        $plate = 2 * ($this->style->plate->px ?? 0.0);

        return $set->overflows($this->rect()->width - $plate, $this->rect()->height - $plate);
    }

    public function wordsTooMany(string $text, FaceMetrics $faces): int
    {
        if (!$faces->knows($this->style->family)) {
            return 0;
        }
        $words = [];
        preg_match_all('/\S+/u', $text, $words, PREG_OFFSET_CAPTURE);
        $most = count($words[0]);
        $kept = static fn (int $kept): string => $kept === $most ? $text : substr($text, 0, $words[0][$kept - 1][1] + strlen($words[0][$kept - 1][0]));

        return $most - Integers::largest(0, $most, fn (int $words): bool => $this->hasRoomFor($kept($words), $faces));
    }

    public function lettersLeft(string $text, FaceMetrics $faces): ?int
    {
        if (!$faces->knows($this->style->family)) {
            return null;
        }
        $more = (preg_match('/\S$/u', $text) === 1 ? ' ' : '') . str_repeat(str_pad('', self::WORD - 1, 'n') . ' ', intdiv(self::MANY_LETTERS, self::WORD) + 1);

        return Integers::largest(0, self::MANY_LETTERS, fn (int $letters): bool => $this->hasRoomFor($text . substr($more, 0, $letters), $faces));
    }

    /** Whether another text would fit in its place, in the smallest type that is allowed. */
    private function hasRoomFor(string $text, FaceMetrics $faces): bool
    {
        $told = $this->worded($text, null);

        return !$told->overflows($told->set($faces, $this->overflow === 'shrink' ? $this->leastPx : $this->style->sizePx));
    }

    /**
     * The largest type, in whole px, with which it fits its box; null where not even 1 px does.
     *
     * @param int $most px
     */
    public function largestThatFits(FaceMetrics $faces, int $most): ?int
    {
        $found = Integers::largest(0, $most, fn (int $px): bool => !$this->overflows($this->set($faces, (float) $px)));

        return $found === 0 ? null : $found;
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
        $room = $this->rect()->height - 2 * $plate - $set->heightPx;
        $top = $this->rect()->y + $plate + match ($style->valign) {
            'middle' => $room / 2,
            'bottom' => $room,
            default => 0.0,
        };
        $boxes = [];
        foreach ($set->lines as ['width_px' => $width, 'height_px' => $line]) {
            $free = $this->rect()->width - 2 * $plate - $width;
            $left = match ($style->align) {
                'center' => $free / 2,
                'end' => $this->isRightToLeft() ? 0.0 : $free,
                default => $this->isRightToLeft() ? $free : 0.0,
            };
            if ($width > 0.0) {
                $boxes[] = new Box($this->rect()->x + $plate + $left, $top, $width, $line);
            }
            $top += $line;
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

    public function covers(): bool
    {
        return false;
    }
}
