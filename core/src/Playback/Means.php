<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Layout\CodeMaker;
use UpperPane\Core\Text\FaceMetrics;

/** What a layout is drawn with, beside itself: the time zone of its display, who measures its faces, and who draws its codes. */
final readonly class Means
{
    /**
     * @param ?FaceMetrics $faces without it texts are neither shrunk nor cut, and running text stands still
     * @param ?CodeMaker $codes without it codes have no modules
     */
    public function __construct(public string $timezone = 'UTC', public ?FaceMetrics $faces = null, public ?CodeMaker $codes = null)
    {
    }

    public function in(string $timezone): self
    {
        return new self($timezone, $this->faces, $this->codes);
    }
}
