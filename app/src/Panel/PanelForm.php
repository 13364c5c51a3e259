<?php

declare(strict_types=1);

namespace UpperPane\App\Panel;

use UpperPane\App\Layout\DesignForm;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\DesignLibrary;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Panel\Panel;
use UpperPane\Core\Playback\Programme;

final readonly class PanelForm implements DesignForm
{
    public static function kind(): DesignKind
    {
        return DesignKind::Panel;
    }

    public static function rules(): bool
    {
        return false;
    }

    /** What its keys name may be elsewhere by now: that is told where they are pressed. */
    public function check(array $document): void
    {
        Panel::fromArray($document);
    }

    public function drawn(array $document, ?Size $raster = null): null
    {
        return null;
    }

    public function plays(DesignLibrary $library, Display $display, array $documents): Programme
    {
        throw new \LogicException('A panel plays nothing by itself: its keys book, and ask.');
    }
}
