<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use UpperPane\App\Layout\DesignForm;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\DesignLibrary;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Playback\Programme;

final readonly class SourceForm implements DesignForm
{
    public static function kind(): DesignKind
    {
        return DesignKind::Source;
    }

    public static function rules(): bool
    {
        return false;
    }

    public function check(array $document): void
    {
        Source::fromNode(Node::root($document));
    }

    public function drawn(array $document, ?Size $raster = null): ?Composed
    {
        return null;
    }

    public function plays(DesignLibrary $library, Display $display, array $documents): Programme
    {
        throw new \LogicException('A source plays nothing by itself: what shows its rows does.');
    }
}
