<?php

declare(strict_types=1);

namespace UpperPane\App\Overlay;

use UpperPane\App\Layout\DesignForm;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\DesignLibrary;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Playback\Overlaid;
use UpperPane\Core\Playback\Programme;

final readonly class OverlayForm implements DesignForm
{
    public function __construct(private DesignLibrary $library)
    {
    }

    public static function kind(): DesignKind
    {
        return DesignKind::Overlay;
    }

    public static function rules(): bool
    {
        return false;
    }

    /** All that it names is there; after items of which zone it comes is known only where it lies above something. */
    public function check(array $document): void
    {
        $overlay = Overlay::fromNode(Node::root($document));
        $composer = $this->library->composer($document);
        $canvas = Size::px(1920, 1080);
        $nothing = $composer->layout(Layout::fromArray(['format' => Layout::FORMAT, 'id' => 'nothing', 'name' => 'Nothing', 'canvas' => $canvas->toArray(), 'elements' => []]));
        Overlaid::of(Programme::endless($nothing), Overlays::of($overlay->when->after === null ? $overlay : $overlay->always()), $composer, $canvas)->check();
    }

    public function drawn(array $document, ?Size $raster = null): null
    {
        return null;
    }

    public function plays(DesignLibrary $library, Display $display, array $documents): Programme
    {
        throw new \LogicException('An overlay plays nothing by itself: it lies above what plays.');
    }
}
