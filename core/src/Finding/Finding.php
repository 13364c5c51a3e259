<?php

declare(strict_types=1);

namespace UpperPane\Core\Finding;

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
     */
    public function __construct(
        public string $code,
        public Level $level,
        public array $elements,
        public string $message,
        public array $measure = [],
        public ?Rect $rect = null,
        public ?Fix $fix = null,
    ) {
    }

    /** The same, said of one design among several. */
    public function within(string $name): self
    {
        return new self($this->code, $this->level, $this->elements, sprintf('In "%s": %s', $name, $this->message), $this->measure, $this->rect, $this->fix);
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
        if ($this->fix !== null) {
            $array['fix'] = $this->fix->toArray();
        }

        return $array;
    }
}
