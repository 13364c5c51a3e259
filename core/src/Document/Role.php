<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** What a value of a document means, apart from its type: what has to be done to it when a document is scaled, copied, searched or written. */
enum Role
{
    case Plain;
    /** Words that viewers read, or their phones. */
    case Words;
    /** A length on the canvas, px: grows with it. */
    case Px;
    /** A length on the canvas in whole px: grows with it, and is never under 1 where it is one at all. */
    case WholePx;
    /** A size of type on the canvas, px: grows with it, and is never under 1. */
    case TypePx;
    /** A speed on the canvas, px a second: grows with it, in half steps of a px at each refresh. */
    case Speed;
    case Colour;
    /** The family of a type face. */
    case Face;
    /** How words are set: face, size and weight, which go together. */
    case Type;
    /** The id of a house style. */
    case Style;
    case Media;
    /** The id of another element of the same layout. */
    case Element;
    /** The name of a group of elements. */
    case Group;
    /** A layout: `{"ref": id}`, or the document itself. */
    case Layout;
    /** The id of a layout. */
    case LayoutId;
    /** The id of a playlist. */
    case PlaylistId;
    /** The id of a source of data. */
    case Source;
    /** The id of a media that is kept. */
    case MediaId;
}
