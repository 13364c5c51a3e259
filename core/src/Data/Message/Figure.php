<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

/** `#`: the number of the plural in which it stands, less its offset. */
final readonly class Figure implements Piece
{
    public function told(Telling $telling): string
    {
        return $telling->figure() ?? '#';
    }

    public function inPart(Telling $telling): array
    {
        $figure = $telling->figure();

        return [[$figure !== null, $figure ?? '#']];
    }

    public function names(): array
    {
        return [];
    }
}
