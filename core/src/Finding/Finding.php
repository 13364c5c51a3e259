<?php

declare(strict_types=1);

namespace UpperPane\Core\Finding;

use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Rect;

/** One place where a design breaks a rule of the trade: what, where, by how much, and the cure. */
final readonly class Finding
{
    /**
     * @param string $code the check, such as `zone.overlap`
     * @param list<string> $elements ids of the elements concerned
     * @param string $message a sentence with its figures and units
     * @param array<string, mixed> $measure the figures alone
     * @param ?Rect $rect the place, in canvas px
     * @param list<Fix> $cures the best first; the first is told (Cures::tried)
     */
    public function __construct(
        public string $code,
        public Level $level,
        public array $elements,
        public string $message,
        public array $measure = [],
        public ?Rect $rect = null,
        public array $cures = [],
    ) {
    }

    /**
     * What cannot be worked out, told beside what can.
     *
     * @param list<string> $elements
     */
    public static function refused(Refused $refused, array $elements = []): self
    {
        return new self($refused->reason->value, Level::Stop, $elements, $refused->getMessage(), ['path' => $refused->path]);
    }

    /** The same, said of one design among several. */
    public function within(string $name): self
    {
        return new self($this->code, $this->level, $this->elements, sprintf('In "%s": %s', $name, $this->message), $this->measure, $this->rect, $this->cures);
    }

    /** The same, said of an element as it is in one of its languages. */
    public function inLanguage(string $language): self
    {
        return new self($this->code, $this->level, $this->elements, sprintf('In %s: %s', $language, $this->message), $this->measure + ['language' => $language], $this->rect, $this->cures);
    }

    /** The same with this cure alone, or without any. */
    public function curedBy(?Fix $cure): self
    {
        return new self($this->code, $this->level, $this->elements, $this->message, $this->measure, $this->rect, $cure === null ? [] : [$cure]);
    }

    /** The cure that is offered. */
    public function cure(): ?Fix
    {
        return $this->cures[0] ?? null;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $array = [
            'code' => $this->code,
            'level' => $this->level->value,
            'elements' => $this->elements,
            'message' => $this->message,
            'measure' => (object) $this->measure,
        ];
        if ($this->rect !== null) {
            $array['rect'] = $this->rect->toArray();
        }
        if ($this->cures !== []) {
            $array['fix'] = $this->cures[0]->toArray();
        }

        return $array;
    }
}
