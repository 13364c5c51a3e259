<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** When an overlay begins or ends: as each display's clock on the wall says, or at one moment everywhere. */
final readonly class Moment
{
    private const LOCAL = LocalTime::PATTERN;

    private function __construct(public ?LocalTime $local, private int $ms)
    {
    }

    public static function field(): Field
    {
        return Field::either(Field::pattern(self::LOCAL), Field::pattern('Z$')->saying('an instant: the same moment everywhere'));
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $text = $node->text(1, 40);

        return str_ends_with($text, 'Z') ? new self(null, Instant::parse($text, $node->path)->ms) : new self(LocalTime::fromNode($node), 0);
    }

    /** Unix ms; what the clock on the wall leaves out is read with the offset before. */
    public function ms(WallClock $clock): int
    {
        return $this->local === null ? $this->ms : 1000 * $clock->utcOrBefore($this->local->seconds);
    }

    /** As the clock on the wall says it, to the whole second. */
    public function on(WallClock $clock): LocalTime
    {
        return $this->local ?? LocalTime::ofSeconds($clock->local((int) floor($this->ms / 1000)));
    }

    /** Whether it lies behind another, as far as that is known without a clock. */
    public function isAfter(self $other): bool
    {
        return match (true) {
            $this->local !== null && $other->local !== null => $this->local->seconds > $other->local->seconds,
            $this->local === null && $other->local === null => $this->ms > $other->ms,
            default => true,
        };
    }

    public function __toString(): string
    {
        return $this->local === null ? (string) Instant::ofMs($this->ms) : (string) $this->local;
    }
}
