<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Layout\Kind\Code\CodeMaker;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Layout\Told\Speaking;
use UpperPane\Core\Media\Swatches;
use UpperPane\Core\Text\FaceMetrics;

/** All that a layout is composed, judged and drawn with, beside itself and what it refers to: the one context. */
final readonly class Surroundings
{
    /**
     * @param string $timezone of the display, a name of the tz database
     * @param ?FaceMetrics $faces who measures type; without it texts are neither shrunk nor cut, and running text stands still
     * @param ?CodeMaker $codes who draws codes; without it they have no modules
     * @param ?Swatches $swatches the colours of pictures; without it the contrast over pictures and films is not known
     * @param ?Display $display that it is seen on, and from where; null for none
     * @param int $atMs the instant at which it is looked at, Unix ms
     * @param ?Feeds $feeds what the sources of data have told; null for none
     * @param Styles $styles the house style that rules
     * @param Speaking $speaking in which languages the place is spoken to
     */
    public function __construct(
        public string $timezone = 'UTC',
        public ?FaceMetrics $faces = null,
        public ?CodeMaker $codes = null,
        public ?Swatches $swatches = null,
        public ?Display $display = null,
        public int $atMs = 0,
        public ?Feeds $feeds = null,
        public Styles $styles = new Styles(),
        public Speaking $speaking = new Speaking(),
    ) {
    }

    public function fed(Feeds $feeds): self
    {
        return new self($this->timezone, $this->faces, $this->codes, $this->swatches, $this->display, $this->atMs, $feeds, $this->styles, $this->speaking);
    }

    public function styled(Styles $styles): self
    {
        return new self($this->timezone, $this->faces, $this->codes, $this->swatches, $this->display, $this->atMs, $this->feeds, $styles, $this->speaking);
    }

    public function speaking(Speaking $speaking): self
    {
        return new self($this->timezone, $this->faces, $this->codes, $this->swatches, $this->display, $this->atMs, $this->feeds, $this->styles, $speaking);
    }

    public function in(string $timezone): self
    {
        return new self($timezone, $this->faces, $this->codes, $this->swatches, $this->display, $this->atMs, $this->feeds, $this->styles, $this->speaking);
    }

    /** @param int $atMs Unix ms */
    public function at(int $atMs): self
    {
        return new self($this->timezone, $this->faces, $this->codes, $this->swatches, $this->display, $atMs, $this->feeds, $this->styles, $this->speaking);
    }

    /** On a display, in its time zone; on none, with the time zone as it is. */
    public function on(?Display $display): self
    {
        return new self($display->timezone ?? $this->timezone, $this->faces, $this->codes, $this->swatches, $display, $this->atMs, $this->feeds, $this->styles, $this->speaking);
    }
}
