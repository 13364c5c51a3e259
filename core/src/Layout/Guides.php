<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;

/** The lines that a designer draws for her own hands, canvas px, and the margin that she keeps free at each edge; nobody sees them on a display. */
final readonly class Guides
{
    private const MOST = 200;

    /** @throws DocumentRefused */
    public static function fromNode(Node $layout): void
    {
        $guides = $layout->optional('guides')?->object('x', 'y');
        foreach (['x', 'y'] as $axis) {
            foreach ($guides?->optional($axis)?->items(self::MOST) ?? [] as $line) {
                $line->int(-Size::LONGEST, Size::LONGEST, 'px');
            }
        }
        $layout->optional('safe')?->int(0, Size::LONGEST, 'px');
    }

    /**
     * A document with its guides where they lie on a canvas of another size, to whole px.
     *
     * @param array<string, mixed> $document that has been read
     * @return array<string, mixed>
     */
    public static function scaled(array $document, Size $from, Size $to): array
    {
        foreach (['x' => $to->width / $from->width, 'y' => $to->height / $from->height] as $axis => $factor) {
            if (is_array($document['guides'] ?? null) && is_array($document['guides'][$axis] ?? null)) {
                $document['guides'][$axis] = array_map(static fn (mixed $px): mixed => is_int($px) ? (int) round($px * $factor) : $px, $document['guides'][$axis]);
            }
        }
        if (is_int($document['safe'] ?? null)) {
            $document['safe'] = (int) round($document['safe'] * min($to->width / $from->width, $to->height / $from->height));
        }

        return $document;
    }
}
