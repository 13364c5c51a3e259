<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Clock;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Kind\Describes;
use UpperPane\Core\Layout\Kind\ElementHead;
use UpperPane\Core\Layout\Kind\HasWords;
use UpperPane\Core\Layout\Kind\Head;
use UpperPane\Core\Layout\Kind\SeamSensitive;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Type\TextStyle;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Text\TimePattern;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\UtcOffsets;

/** The time of day or the date in words, a dial with hands, or the time that is left until an instant. */
final readonly class Clock implements WrittenElement, HasWords, SeamSensitive, Describes
{
    use ElementHead;

    public const KIND = 'clock';

    /**
     * @param ?string $timezone null for that of the display
     * @param ?Dial $dial null for words
     * @param ?int $untilMs Unix ms to which the time that is left is counted
     * @param ?string $after what is said when it is over; null goes on saying that nothing is left
     */
    private function __construct(
        private Head $head,
        public ?TimePattern $pattern,
        public ?TextStyle $style,
        public ?string $timezone,
        public ?Dial $dial,
        public ?int $untilMs,
        public ?string $after,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'pattern' => Field::text()->saying('Unicode date pattern (UTS 35); for a time that is left d, H, m and s'),
            'locale' => Field::text(1, 40),
            'timezone' => Field::text(1, 80)->saying('of the tz database; without it that of the display'),
            'style' => TextStyle::field(),
            'dial' => Field::object(Dial::fields()),
            'until' => Field::text(1, 40)->saying('instant, UTC: the time that is left until then is told'),
            'after' => Field::text(0, 200, Role::Words)->saying('what is said then'),
        ])->where(['oneOf' => [['required' => ['style']], ['required' => ['dial']]]]);
    }

    public static function begun(Rect $rect, Size $canvas): array
    {
        return ['pattern' => 'HH:mm', 'style' => TextStyle::begun($rect, $canvas, 0.7) + ['align' => 'center', 'valign' => 'middle']];
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): static
    {
        $head = Head::fromNode($node, self::fields());
        $timezone = ($zone = $node->optional('timezone')) ? UtcOffsets::name($zone) : null;
        if ($node->has('dial')) {
            foreach (['pattern', 'style', 'until', 'after'] as $words) {
                $node->has($words) && throw $node->field($words)->refused(Reason::FieldUnknown, 'stands beside "dial"; a clock has a dial or says the time in words.');
            }

            return new self($head, null, null, $timezone, Dial::fromNode($node->field('dial')), null, null);
        }
        $locale = ($language = $node->optional('locale')) ? TimePattern::locale($language) : 'en';
        $until = $node->optional('until');
        $pattern = $node->optional('pattern') ?? Node::root($until === null ? 'HH:mm' : 'HH:mm:ss');

        return new self(
            $head,
            $until === null ? TimePattern::ofClock($pattern, $locale) : TimePattern::ofTimeLeft($pattern, $locale),
            TextStyle::fromNode($node->field('style')),
            $timezone,
            null,
            $until === null ? null : Instant::parse($until->text(), $until->path)->ms,
            $until === null ? null : $node->optional('after')?->text(0, 200),
        );
    }

    /** What it says at an instant, Unix ms; nothing for a dial. */
    public function says(int $ms, UtcOffsets $offsets): string
    {
        return match (true) {
            $this->pattern === null => '',
            $this->untilMs === null => $this->pattern->at($ms + $offsets->at($ms)),
            $ms >= $this->untilMs && $this->after !== null => $this->after,
            default => $this->pattern->left($this->untilMs - $ms),
        };
    }

    public function words(FaceMetrics $faces): array
    {
        $style = $this->style;
        if ($this->pattern === null || $style === null || !$faces->knows($style->family)) {
            return $style === null || $this->pattern === null ? [] : [Text::within($this, $this->rect(), $this->pattern->longest(static fn (string $word): float => mb_strlen($word)), $style)];
        }
        $width = static fn (string $word): float => $faces->advance($word, $style->family, $style->weight);
        $longest = $this->pattern->longest($width);

        return [Text::within($this, $this->rect(), $this->after !== null && $width($this->after) > $width($longest) ? $this->after : $longest, $style)];
    }

    public function styles(): array
    {
        return $this->style === null ? [] : [$this->style];
    }

    public function title(): string
    {
        return $this->id();
    }

    public function described(FaceMetrics $faces, ?float $mmPerPx): ?string
    {
        [$words] = [...$this->words($faces), null];

        return $words === null || !$faces->knows($words->style->family)
            ? null
            : sprintf('at its longest %d px wide, its box has %d', (int) ceil($words->set($faces)->widthPx), $this->rect()->width);
    }

    /** A time is read at a glance, as one word. */
    public function wordCount(): int
    {
        return 1;
    }

    public function covers(): bool
    {
        return false;
    }
}
