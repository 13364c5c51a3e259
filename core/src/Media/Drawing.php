<?php

declare(strict_types=1);

namespace UpperPane\Core\Media;

use UpperPane\Core\Geometry\Size;

/** An SVG drawing: what it may carry, and its size (SVG 1.1, 7.2 and 7.7: `width` and `height`, or else the `viewBox`). */
final class Drawing
{
    private const PROGRAMS = ['script', 'foreignobject', 'iframe', 'handler'];

    /**
     * The size of a drawing that holds no program and refers to nothing outside itself.
     *
     * @throws NotAcceptable
     */
    public static function size(string $svg): Size
    {
        $document = new \DOMDocument();
        if ($svg === '' || !@$document->loadXML($svg, LIBXML_NONET) || $document->documentElement?->localName !== 'svg') {
            throw new NotAcceptable('is no well-formed SVG drawing.');
        }
        // Looked for in what was read, whatever the encoding of the file: a DOCTYPE can declare entities that grow without bound, or name other files.
        if ($document->doctype !== null) {
            throw new NotAcceptable('begins with a DOCTYPE, which a drawing needs for nothing: it is not taken. Export it without.');
        }
        // Not getElementsByTagName: its list counts from the beginning at every step.
        foreach ((new \DOMXPath($document))->query('//*') ?: [] as $element) {
            if (!$element instanceof \DOMElement) {
                continue;
            }
            if (in_array(strtolower((string) $element->localName), self::PROGRAMS, true)) {
                throw new NotAcceptable(sprintf('carries a <%s>: drawings with programs in them are not taken. Export it without.', $element->localName));
            }
            foreach ($element->attributes as $attribute) {
                self::checkAttribute(strtolower((string) $attribute->localName), trim($attribute->value));
            }
        }
        $size = self::drawn($document->documentElement) ?? throw new NotAcceptable('says neither width and height in px nor a viewBox.');
        Acceptable::raster($size);

        return $size;
    }

    /** @throws NotAcceptable */
    private static function checkAttribute(string $name, string $value): void
    {
        // Browsers skip white space and control characters within the scheme of an address (URL Standard, 4.4).
        $address = strtolower((string) preg_replace('/[\x00-\x20]+/', '', $value));
        if (str_starts_with($name, 'on') || preg_match('/^(javascript|vbscript):/', $address) === 1) {
            throw new NotAcceptable(sprintf('carries a program in the attribute "%s": drawings with programs in them are not taken.', $name));
        }
        if ($name === 'href' && $value !== '' && !str_starts_with($value, '#') && !str_starts_with($address, 'data:image/')) {
            throw new NotAcceptable(sprintf('refers to another file (%s): embed it and bring the drawing in again.', mb_strimwidth($value, 0, 60, '...')));
        }
    }

    private static function drawn(\DOMElement $svg): ?Size
    {
        $px = static fn (string $value): ?int => preg_match('/^(\d+(?:\.\d+)?)(px)?$/D', trim($value), $m) === 1 ? (int) round((float) $m[1]) : null;
        [$width, $height] = [$px($svg->getAttribute('width')), $px($svg->getAttribute('height'))];
        if ($width === null || $height === null) {
            $box = preg_split('/[\s,]+/', trim($svg->getAttribute('viewBox'))) ?: [];
            [$width, $height] = count($box) === 4 ? [(int) round((float) $box[2]), (int) round((float) $box[3])] : [0, 0];
        }

        return $width >= 1 && $height >= 1 && $width <= Size::LONGEST && $height <= Size::LONGEST ? Size::px($width, $height) : null;
    }
}
