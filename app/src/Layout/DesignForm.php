<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Playback\Programme;

/** What a kind of design is: whether a document of it may be saved, how it is drawn, and what it plays. */
#[AutoconfigureTag]
interface DesignForm
{
    public static function kind(): DesignKind;

    /** Whether each of it rules on a display or in a place, and only one there. */
    public static function rules(): bool;

    /**
     * Whether it may be saved: all that it names is there, and it keeps to the bounds.
     *
     * @param array<string, mixed> $document
     * @throws Refused
     */
    public function check(array $document): void;

    /**
     * @param array<string, mixed> $document
     * @param ?Size $raster that it is drawn over; its own where it has one
     * @return ?Composed null of a kind that shows nothing of its own
     * @throws Refused
     */
    public function drawn(array $document, ?Size $raster = null): ?Composed;

    /**
     * What a display plays by it.
     *
     * @param DesignLibrary $library where what it names is read from
     * @param non-empty-list<array<string, mixed>> $documents the nearest first, where several of its kind rule together; else one
     * @throws Refused
     */
    public function plays(DesignLibrary $library, Display $display, array $documents): Programme;
}
