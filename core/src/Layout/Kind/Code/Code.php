<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Code;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Composable;
use UpperPane\Core\Layout\Kind\Describes;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\ElementHead;
use UpperPane\Core\Layout\Kind\Head;
use UpperPane\Core\Layout\Kind\SeamSensitive;
use UpperPane\Core\Layout\Kind\Text\Text;
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

/** A QR code (ISO/IEC 18004) with its quiet zone, and beside or below it, if wanted, a few words for those who cannot scan it. */
final readonly class Code implements WrittenElement, SeamSensitive, Describes, Composable, SaysText
{
    use ElementHead;
    use TellsMessage;

    public const KIND = 'code';
    private const LONGEST = 8000;

    /**
     * @param 'L'|'M'|'Q'|'H' $level of error correction
     * @param int $version 1 to 40
     * @param int $quiet modules of the quiet zone on each side
     */
    private function __construct(
        private Head $head,
        public string $text,
        public string $level,
        public int $version,
        public int $quiet,
        public Colour $color,
        public Colour $ground,
        public string $caption,
        public ?TextStyle $captionStyle,
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
            'text' => Field::text(1, self::LONGEST, Role::Words)->required(),
            ...self::messageFields(self::LONGEST),
            'level' => Field::oneOf('L', 'M', 'Q', 'H'),
            'quiet' => Field::int(0, 40)->saying('modules'),
            'color' => Field::colour(),
            'ground' => Field::colour(),
            'caption' => Field::object(self::captionFields()),
        ]);
    }

    private static function captionFields(): Fields
    {
        return Fields::of(['text' => Field::text(1, 200, Role::Words)->required(), 'style' => TextStyle::field()->required()])->named('Caption');
    }

    public static function begun(Rect $rect, Size $canvas): array
    {
        return ['text' => 'https://example.com'];
    }

    /** @throws DocumentRefused also for a text that no code holds */
    public static function fromNode(Node $node): static
    {
        $head = Head::fromNode($node, self::fields());
        $text = $node->field('text')->text(1, self::LONGEST);
        $level = match ($node->optional('level')?->oneOf('L', 'M', 'Q', 'H') ?? 'M') {
            'L' => 'L',
            'Q' => 'Q',
            'H' => 'H',
            default => 'M',
        };
        $version = self::versionOf($text, $level, $node->field('text'));
        [$message, $rows] = self::messageOf($node, $text);
        $caption = $node->optional('caption')?->object(...self::captionFields()->names());

        return new self(
            $head,
            $text,
            $level,
            $version,
            $node->optional('quiet')?->int(0, 40, 'modules') ?? 4,
            ($color = $node->optional('color')) ? Colour::fromNode($color) : Colour::black(),
            ($ground = $node->optional('ground')) ? Colour::fromNode($ground) : Colour::of('#ffffff'),
            $caption?->field('text')->text(1, 200) ?? '',
            $caption === null ? null : TextStyle::fromNode($caption->field('style')),
            $message,
            $rows,
            languages: Languages::of($node, $message !== null, static function (Node $one) use ($level): string {
                self::versionOf($one->text(1, self::LONGEST), $level, $one);

                return $one->text(1, self::LONGEST);
            }),
        );
    }

    /**
     * @param 'L'|'M'|'Q'|'H' $level
     * @throws DocumentRefused where no code holds it
     */
    private static function versionOf(string $text, string $level, Node $node): int
    {
        return CodeSize::version($text, $level)
            ?? throw $node->refused(Reason::ValueRange, sprintf('has %d bytes, more than a code of level %s holds: at level L 2,953 bytes fit.', strlen($text), $level));
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

    /** What is longer than a code of its level holds is cut. */
    private function worded(string $text, ?Message $message): static
    {
        $version = CodeSize::version($text, $this->level);
        while ($version === null) {
            $text = mb_strcut($text, 0, (int) (0.9 * strlen($text)));
            $version = CodeSize::version($text, $this->level);
        }

        return $this->with($text, $version, $message, $this->inTurn, null, null);
    }

    private function going(?InTurn $inTurn, ?InLanguages $inLanguages): static
    {
        return $this->with($this->text, $this->version, $this->message, $inTurn, $this->languages, $inLanguages);
    }

    private function with(string $text, int $version, ?Message $message, ?InTurn $inTurn, ?Languages $languages, ?InLanguages $inLanguages): static
    {
        return new self(
            $this->head,
            $text,
            $this->level,
            $version,
            $this->quiet,
            $this->color,
            $this->ground,
            $this->caption,
            $this->captionStyle,
            $message,
            $this->rows,
            $inTurn,
            $languages,
            $inLanguages,
        );
    }

    /** Modules on each side, quiet zone included. */
    public function across(): int
    {
        return CodeSize::modules($this->version) + 2 * $this->quiet;
    }

    /** Side of a module in canvas px: whole where there is room for one px, so that edges are sharp. */
    public function modulePx(): float
    {
        $side = $this->side();

        return $side >= $this->across() ? (float) intdiv($side, $this->across()) : $side / $this->across();
    }

    /** Where the code stands, quiet zone included, canvas px: in the middle of its box, or beside its caption. */
    public function symbol(): Box
    {
        $rect = $this->rect();
        $size = $this->modulePx() * $this->across();
        $side = $this->side();
        [$x, $y] = match (true) {
            $this->captionStyle === null => [($rect->width - $size) / 2, ($rect->height - $size) / 2],
            $this->isBeside() => [($side - $size) / 2, ($rect->height - $size) / 2],
            default => [($rect->width - $size) / 2, ($side - $size) / 2],
        };

        return new Box($rect->x + floor($x), $rect->y + floor($y), $size, $size);
    }

    /** What the caption has: the rest of the box, right of the code in a wide one, below it in a high one; null without a caption. */
    public function captionRect(): ?Rect
    {
        if ($this->captionStyle === null) {
            return null;
        }
        [$rect, $side] = [$this->rect(), $this->side()];

        return $this->isBeside()
            ? Rect::at($rect->x + $side, $rect->y, max(1, $rect->width - $side), $rect->height)
            : Rect::at($rect->x, $rect->y + $side, $rect->width, max(1, $rect->height - $side));
    }

    public function words(FaceMetrics $faces): array
    {
        $rect = $this->captionRect();

        return $rect === null || $this->captionStyle === null ? [] : [Text::within($this, $rect, $this->caption, $this->captionStyle)];
    }

    public function styles(): array
    {
        return $this->captionStyle === null ? [] : [$this->captionStyle];
    }

    public function wordCount(): int
    {
        return ReadingTime::wordsOf($this->caption);
    }

    public function covers(): bool
    {
        return false;
    }

    public function title(): string
    {
        return $this->id();
    }

    public function described(FaceMetrics $faces, ?float $mmPerPx): string
    {
        $modules = $this->across() - 2 * $this->quiet;
        $module = $this->modulePx();

        return sprintf('version %d, %d modules of %s px', $this->version, $modules, round($module, 2)) . ($mmPerPx === null ? '' : sprintf(
            ' (%s mm), scanned from about %s m',
            round($module * $mmPerPx, 1),
            round($module * $modules * $mmPerPx * CodeScan::REACH / 1000, 1),
        ));
    }

    /** Of the square for the code, px. Where there is a caption, a box that is nearly square leaves a line of it below. */
    private function side(): int
    {
        $rect = $this->rect();
        if ($this->captionStyle === null || $this->isBeside()) {
            return min($rect->width, $rect->height);
        }

        return max(1, min($rect->width, $rect->height - (int) ceil($this->captionStyle->lineHeight * $this->captionStyle->sizePx)));
    }

    private function isBeside(): bool
    {
        return $this->rect()->width >= 1.5 * $this->rect()->height;
    }
}
